CREATE TABLE cohort_names (
  course_id   BIGINT        NOT NULL,
  kind        VARCHAR(16)   NOT NULL,
  folded_hash CHAR(64)      NOT NULL,
  name        VARCHAR(2000) NOT NULL,
  PRIMARY KEY (course_id, kind, folded_hash),
  KEY cohort_names_alike (folded_hash, kind),
  CONSTRAINT cohort_names_course FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE
)
