CREATE TABLE course_decisions (
  course_id  BIGINT       NOT NULL,
  field      VARCHAR(40)  NOT NULL,
  decided_by VARCHAR(200) NOT NULL,
  decided_at DATETIME(3)  NOT NULL,
  PRIMARY KEY (course_id, field),
  CONSTRAINT course_decisions_course FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE,
  CONSTRAINT course_decisions_field CHECK (field IN ('status', 'class sections', 'instructors'))
)
