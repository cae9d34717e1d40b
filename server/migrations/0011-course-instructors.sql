CREATE TABLE course_instructors (
  course_id BIGINT       NOT NULL,
  email     VARCHAR(200) NOT NULL,
  name      VARCHAR(200) NOT NULL,
  position  INT          NOT NULL,
  PRIMARY KEY (course_id, email),
  KEY course_instructors_by_email (email),
  CONSTRAINT course_instructors_course FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE
)
