CREATE TABLE class_sections (
  course_id BIGINT      NOT NULL,
  name      VARCHAR(40) NOT NULL,
  PRIMARY KEY (course_id, name),
  CONSTRAINT class_sections_course FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE
)
