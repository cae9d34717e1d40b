CREATE TABLE attestations (
  id          BIGINT        NOT NULL AUTO_INCREMENT PRIMARY KEY,
  course_id   BIGINT        NOT NULL,
  rule        VARCHAR(80)   NOT NULL,
  fingerprint VARCHAR(100)  NOT NULL,
  given_by    VARCHAR(200)  NOT NULL,
  given_on    DATE          NOT NULL,
  until_date  DATE          NULL,
  words       VARCHAR(2000) NOT NULL,
  taken_back  DATETIME(3)   NULL,
  KEY attestations_by_course (course_id),
  CONSTRAINT attestations_course FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE
)
