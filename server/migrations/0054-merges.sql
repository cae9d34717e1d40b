CREATE TABLE merges (
  course_id    BIGINT       NOT NULL PRIMARY KEY,
  into_id      BIGINT       NOT NULL,
  before_merge LONGTEXT     NOT NULL COMMENT 'status of the course, class sections and people of the other one, as JSON',
  merged_by    VARCHAR(200) NOT NULL,
  merged_at    DATETIME(3)  NOT NULL,
  KEY merges_into (into_id),
  CONSTRAINT merges_course FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE,
  CONSTRAINT merges_into_course FOREIGN KEY (into_id) REFERENCES courses (id)
)
