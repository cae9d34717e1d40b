CREATE TABLE messages (
  id        BIGINT        NOT NULL AUTO_INCREMENT PRIMARY KEY,
  recipient VARCHAR(200)  NOT NULL,
  run_id    BIGINT        NULL,
  sent_at   DATETIME(3)   NOT NULL,
  subject   VARCHAR(300)  NOT NULL,
  body      VARCHAR(4000) NOT NULL,
  read_at   DATETIME(3)   NULL,
  UNIQUE KEY messages_by_run (run_id, subject),
  KEY messages_by_recipient (recipient, sent_at),
  CONSTRAINT messages_run FOREIGN KEY (run_id) REFERENCES runs (id)
)
