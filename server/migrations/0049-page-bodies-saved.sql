ALTER TABLE page_bodies
  ADD COLUMN saved_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  ADD KEY page_bodies_by_age (saved_at)
