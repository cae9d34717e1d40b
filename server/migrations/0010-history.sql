-- How courses stood day by day, and which findings came, went and came back. Only what changed is kept: a day without a row is
-- as the one before it.

CREATE TABLE IF NOT EXISTS readiness_changes (
  course_id BIGINT NOT NULL,
  day DATE NOT NULL COMMENT 'of the institution',
  readiness VARCHAR(24) NOT NULL,
  open_musts INT NOT NULL,
  open_shoulds INT NOT NULL,
  PRIMARY KEY (course_id, day),
  CONSTRAINT readiness_changes_course FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE
);

CREATE TABLE IF NOT EXISTS finding_spells (
  id BIGINT NOT NULL AUTO_INCREMENT,
  course_id BIGINT NOT NULL,
  fingerprint VARCHAR(100) NOT NULL,
  rule VARCHAR(80) NOT NULL,
  strength VARCHAR(10) NOT NULL,
  message VARCHAR(2000) NOT NULL,
  came DATE NOT NULL COMMENT 'the first day on which it was found',
  went DATE NULL COMMENT 'the first day on which it was not found any more; none: it is still found',
  PRIMARY KEY (id),
  KEY finding_spells_open (course_id, went),
  KEY finding_spells_of (course_id, fingerprint, came),
  CONSTRAINT finding_spells_course FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE
);

INSERT IGNORE INTO readiness_changes (course_id, day, readiness, open_musts, open_shoulds)
SELECT course_id, as_of, readiness, open_musts, open_shoulds
FROM check_results
-- As of the very day: the institution’s may be another than that of UTC.
WHERE as_of BETWEEN DATE_SUB(DATE(checked_at), INTERVAL 1 DAY) AND DATE_ADD(DATE(checked_at), INTERVAL 1 DAY)
ORDER BY course_id, as_of, told_at DESC, id DESC;

CREATE TABLE IF NOT EXISTS history_kept (
  course_id BIGINT NOT NULL,
  result_id BIGINT NULL COMMENT 'the result that the history was last kept from, where it was known from before',
  PRIMARY KEY (course_id),
  CONSTRAINT history_kept_course FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE
);
