-- When courses are read and checked without anybody asking for it.

CREATE TABLE IF NOT EXISTS schedules (
  id BIGINT NOT NULL AUTO_INCREMENT,
  term_code VARCHAR(60) NULL COMMENT 'of the courses; none: of every term',
  department VARCHAR(40) NULL COMMENT 'of the courses; none: of every department',
  pattern VARCHAR(100) NOT NULL COMMENT 'minute, hour, day of the month, month, weekday',
  time_zone VARCHAR(60) NOT NULL COMMENT 'by which the pattern is read',
  paused BOOLEAN NOT NULL DEFAULT FALSE,
  made_by VARCHAR(200) NOT NULL,
  made_at DATETIME(3) NOT NULL,
  next_at DATETIME(3) NULL COMMENT 'in UTC, by the institution’s clock; none: never again',
  last_at DATETIME(3) NULL,
  last_run BIGINT NULL,
  last_said VARCHAR(300) NOT NULL DEFAULT '',
  PRIMARY KEY (id),
  KEY schedules_due (paused, next_at),
  CONSTRAINT schedules_term FOREIGN KEY (term_code) REFERENCES terms (code) ON DELETE CASCADE,
  CONSTRAINT schedules_run FOREIGN KEY (last_run) REFERENCES runs (id) ON DELETE SET NULL
);
