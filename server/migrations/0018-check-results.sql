CREATE TABLE check_results (
  id           BIGINT      NOT NULL AUTO_INCREMENT PRIMARY KEY,
  course_id    BIGINT      NOT NULL,
  cache_key    CHAR(64)    NOT NULL,
  as_of        DATE        NOT NULL,
  holds_from   DATE        NULL,
  holds_until  DATE        NULL,
  checked_at   DATETIME(3) NOT NULL,
  readiness    VARCHAR(24) NOT NULL,
  open_musts   INT         NOT NULL,
  open_shoulds INT         NOT NULL,
  counts       LONGTEXT    NOT NULL,
  crossings    LONGTEXT    NOT NULL,
  findings     LONGTEXT    NOT NULL,
  rest         LONGTEXT    NOT NULL,
  UNIQUE KEY check_results_by_key (course_id, cache_key, as_of),
  KEY check_results_latest (course_id, id),
  CONSTRAINT check_results_course FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE
)
