CREATE TABLE enrolments (
  course_id VARCHAR(60)  NOT NULL,
  email     VARCHAR(200) NOT NULL,
  name      VARCHAR(200) NOT NULL,
  PRIMARY KEY (course_id, email),
  CONSTRAINT enrolments_course FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE
)
