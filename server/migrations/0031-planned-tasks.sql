ALTER TABLE tasks
  MODIFY COLUMN payload LONGBLOB NULL,
  ADD COLUMN plan_summary LONGTEXT NULL,
  ADD COLUMN plan_shape VARCHAR(64) NULL,
  ADD COLUMN decisions LONGTEXT NULL,
  ADD COLUMN worked_by VARCHAR(100) NULL,
  ADD COLUMN prepared_for CHAR(64) NULL,
  ADD COLUMN source_course_id BIGINT NULL,
  ADD CONSTRAINT tasks_source FOREIGN KEY (source_course_id) REFERENCES courses (id),
  ADD KEY tasks_by_run_state (run_id, state),
  DROP CONSTRAINT tasks_state,
  ADD CONSTRAINT tasks_state CHECK (state IN ('to-plan', 'planned', 'waiting', 'at-work', 'sent', 'held', 'done', 'failed', 'cancelled'))
