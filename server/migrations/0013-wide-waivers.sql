-- A waiver may be of a part, begin on a later day, be carried to the next term, and reach many courses at once.

ALTER TABLE waivers DROP CONSTRAINT IF EXISTS waivers_scope;
ALTER TABLE waivers DROP CONSTRAINT IF EXISTS waivers_place;
ALTER TABLE waivers DROP CONSTRAINT IF EXISTS waivers_reach;
ALTER TABLE waivers MODIFY COLUMN course_id BIGINT NULL COMMENT 'none: it reaches several, as the columns after it say';
ALTER TABLE waivers MODIFY COLUMN rule VARCHAR(80) NULL;
ALTER TABLE waivers ADD COLUMN IF NOT EXISTS part VARCHAR(80) NULL AFTER rule;
ALTER TABLE waivers ADD COLUMN IF NOT EXISTS week INT NULL AFTER part;
ALTER TABLE waivers ADD COLUMN IF NOT EXISTS department VARCHAR(200) NULL AFTER course_id;
ALTER TABLE waivers ADD COLUMN IF NOT EXISTS template_id BIGINT NULL AFTER department;
ALTER TABLE waivers ADD COLUMN IF NOT EXISTS term_code VARCHAR(60) NULL COMMENT 'of the courses it reaches' AFTER template_id;
ALTER TABLE waivers ADD COLUMN IF NOT EXISTS listed BOOLEAN NOT NULL DEFAULT FALSE COMMENT 'it reaches the courses that waiver_courses names' AFTER term_code;
ALTER TABLE waivers ADD COLUMN IF NOT EXISTS carried BOOLEAN NOT NULL DEFAULT FALSE COMMENT 'to later terms' AFTER listed;
ALTER TABLE waivers ADD COLUMN IF NOT EXISTS end_told_at DATETIME(3) NULL;
ALTER TABLE waivers ADD CONSTRAINT waivers_scope CHECK (scope IN ('evidence', 'place', 'part', 'rule'));
ALTER TABLE waivers ADD CONSTRAINT waivers_place CHECK (
  scope = 'part' AND part IS NOT NULL OR rule IS NOT NULL AND (scope = 'rule' OR fingerprint IS NOT NULL)
);
ALTER TABLE waivers ADD CONSTRAINT waivers_reach CHECK (course_id IS NOT NULL OR scope IN ('part', 'rule'));
ALTER TABLE waivers ADD CONSTRAINT waivers_template FOREIGN KEY IF NOT EXISTS (template_id) REFERENCES templates (id) ON DELETE CASCADE;

CREATE TABLE IF NOT EXISTS waiver_courses (
  waiver_id BIGINT NOT NULL,
  course_id BIGINT NOT NULL,
  PRIMARY KEY (waiver_id, course_id),
  CONSTRAINT waiver_courses_of FOREIGN KEY (waiver_id) REFERENCES waivers (id) ON DELETE CASCADE,
  CONSTRAINT waiver_courses_course FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE
);

-- Courses whose waivers changed are checked again from what is stored, without asking the platform.
ALTER TABLE runs DROP CONSTRAINT IF EXISTS runs_kind;
ALTER TABLE runs ADD CONSTRAINT runs_kind CHECK (kind IN ('rollout', 'check', 'recheck', 'renames', 'mends', 'impact'));
