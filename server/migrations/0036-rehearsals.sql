CREATE TABLE rehearsals (
  id          VARCHAR(100) NOT NULL PRIMARY KEY,
  run_id      BIGINT       NOT NULL,
  course_id   BIGINT       NOT NULL,
  created_by  VARCHAR(200) NOT NULL,
  created_at  DATETIME(3)  NOT NULL,
  discarded_at DATETIME(3) NULL,
  CONSTRAINT rehearsals_run FOREIGN KEY (run_id) REFERENCES runs (id),
  CONSTRAINT rehearsals_course FOREIGN KEY (course_id) REFERENCES courses (id)
)
