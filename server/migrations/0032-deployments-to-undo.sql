ALTER TABLE deployments
  ADD COLUMN mode VARCHAR(20) NOT NULL DEFAULT 'version',
  ADD COLUMN receipt LONGTEXT NULL,
  ADD COLUMN undo_record LONGBLOB NULL,
  ADD COLUMN undone_by BIGINT NULL,
  ADD COLUMN judged_before LONGTEXT NULL,
  MODIFY COLUMN expansion LONGBLOB NOT NULL,
  MODIFY COLUMN template_id BIGINT NULL,
  MODIFY COLUMN version INT NULL,
  ADD KEY deployments_by_run (run_id, course_id)
