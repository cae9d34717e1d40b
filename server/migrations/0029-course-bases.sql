CREATE TABLE course_bases (
  course_id BIGINT   NOT NULL PRIMARY KEY,
  fields    LONGTEXT NOT NULL,
  instances LONGTEXT NOT NULL,
  CONSTRAINT course_bases_course FOREIGN KEY (course_id) REFERENCES courses (id)
)
