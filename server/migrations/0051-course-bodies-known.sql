ALTER TABLE courses
  ADD COLUMN bodies_known_at DATETIME(3) NULL COMMENT 'when it was last looked at which bodies the course names; null: not yet',
  ADD KEY courses_by_bodies_known (bodies_known_at)
