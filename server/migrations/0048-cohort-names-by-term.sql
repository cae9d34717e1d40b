ALTER TABLE cohort_names
  MODIFY COLUMN term_code VARCHAR(60) NOT NULL,
  DROP FOREIGN KEY cohort_names_course,
  DROP KEY cohort_names_alike,
  ADD KEY cohort_names_alike (folded_hash, kind, term_code, course_id),
  ADD KEY cohort_names_of_course (course_id, term_code),
  ADD CONSTRAINT cohort_names_of_term FOREIGN KEY (course_id, term_code) REFERENCES courses (id, term_code) ON DELETE CASCADE ON UPDATE CASCADE
