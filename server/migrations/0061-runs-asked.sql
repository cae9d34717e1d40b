ALTER TABLE runs
  ADD COLUMN question CHAR(64) NULL,
  ADD KEY runs_by_who (created_by, state)
