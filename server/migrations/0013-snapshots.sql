CREATE TABLE snapshots (
  course_id BIGINT       NOT NULL PRIMARY KEY,
  revision  VARCHAR(100) NOT NULL,
  read_at   DATETIME(3)  NOT NULL,
  digest    CHAR(64)     NOT NULL,
  document  LONGTEXT     NOT NULL,
  is_shell  TINYINT      NOT NULL,
  CONSTRAINT snapshots_course FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE
)
