-- What a draft would change for courses, before it is released: a run of its own, and what it came to in each course.

ALTER TABLE runs DROP CONSTRAINT IF EXISTS runs_kind;
ALTER TABLE runs ADD CONSTRAINT runs_kind CHECK (kind IN ('rollout', 'check', 'renames', 'mends', 'impact'));

CREATE TABLE IF NOT EXISTS impacts (
  run_id BIGINT NOT NULL,
  template_id BIGINT NOT NULL,
  revision INT NOT NULL COMMENT 'of the draft that courses are held against',
  document LONGTEXT NOT NULL COMMENT 'the draft as it was then, with the number of the version it would be',
  PRIMARY KEY (run_id),
  KEY impacts_of (template_id, run_id),
  CONSTRAINT impacts_run FOREIGN KEY (run_id) REFERENCES runs (id) ON DELETE CASCADE,
  CONSTRAINT impacts_template FOREIGN KEY (template_id) REFERENCES templates (id) ON DELETE CASCADE
);

CREATE TABLE IF NOT EXISTS course_impacts (
  run_id BIGINT NOT NULL,
  course_id BIGINT NOT NULL,
  impact LONGTEXT NOT NULL,
  PRIMARY KEY (run_id, course_id),
  CONSTRAINT course_impacts_of FOREIGN KEY (run_id) REFERENCES impacts (run_id) ON DELETE CASCADE,
  CONSTRAINT course_impacts_course FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE
);
