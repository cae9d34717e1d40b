CREATE TABLE not_this_week (
  course_id BIGINT       NOT NULL,
  instance  VARCHAR(200) NOT NULL,
  said_by   VARCHAR(200) NOT NULL,
  said_at   DATETIME(3)  NOT NULL,
  PRIMARY KEY (course_id, instance),
  CONSTRAINT not_this_week_course FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE
)
