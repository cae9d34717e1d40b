ALTER TABLE cohort_names
  ADD COLUMN term_code VARCHAR(60) NULL AFTER course_id
