CREATE TABLE course_bases (
  course_id BIGINT   NOT NULL PRIMARY KEY,
  document  LONGBLOB NOT NULL,
  CONSTRAINT course_bases_course FOREIGN KEY (course_id) REFERENCES courses (id)
)
