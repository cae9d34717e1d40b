-- Every table, as the first release has it. Each statement can be run again: a migration that was cut short is run from its
-- beginning. Tables are made in utf8mb4, whatever the database’s own character set.

-- People, and how they sign in

CREATE TABLE IF NOT EXISTS people (
  id BIGINT NOT NULL AUTO_INCREMENT,
  email VARCHAR(200) NOT NULL,
  name VARCHAR(200) NOT NULL,
  role VARCHAR(20) NOT NULL,
  password_hash VARCHAR(200) NOT NULL,
  password_changed_at DATETIME(3) NOT NULL DEFAULT '2000-01-01 00:00:00.000',
  PRIMARY KEY (id),
  UNIQUE KEY people_by_email (email),
  CONSTRAINT people_role CHECK (role IN ('designer', 'contributor', 'instructor', 'reviewer', 'administrator'))
);

CREATE TABLE IF NOT EXISTS sessions (
  token_hash CHAR(64) NOT NULL,
  person_id BIGINT NOT NULL,
  expires_at DATETIME(3) NOT NULL,
  began_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  seen_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  PRIMARY KEY (token_hash),
  KEY sessions_by_expiry (expires_at),
  KEY sessions_person (person_id),
  CONSTRAINT sessions_person FOREIGN KEY (person_id) REFERENCES people (id) ON DELETE CASCADE
);

CREATE TABLE IF NOT EXISTS known_devices (
  token_hash CHAR(64) NOT NULL,
  person_id BIGINT NOT NULL,
  used_at DATETIME(3) NOT NULL,
  PRIMARY KEY (token_hash),
  KEY known_devices_by_use (used_at),
  KEY known_devices_person (person_id),
  CONSTRAINT known_devices_person FOREIGN KEY (person_id) REFERENCES people (id) ON DELETE CASCADE
);

CREATE TABLE IF NOT EXISTS sign_in_tries (
  scope VARCHAR(10) NOT NULL,
  name VARCHAR(200) NOT NULL,
  since DATETIME(3) NOT NULL,
  tries INT UNSIGNED NOT NULL,
  PRIMARY KEY (scope, name),
  KEY sign_in_tries_by_since (since),
  CONSTRAINT sign_in_tries_scope CHECK (scope IN ('account', 'client', 'device', 'all'))
);


-- Terms

CREATE TABLE IF NOT EXISTS terms (
  code VARCHAR(60) NOT NULL,
  title VARCHAR(200) NOT NULL,
  first_day DATE NOT NULL,
  last_day DATE NOT NULL,
  time_zone VARCHAR(60) NOT NULL,
  document LONGTEXT NOT NULL,
  PRIMARY KEY (code),
  CONSTRAINT terms_dates CHECK (first_day <= last_day)
);


-- Templates, their versions, and who works on them

CREATE TABLE IF NOT EXISTS templates (
  id BIGINT NOT NULL AUTO_INCREMENT,
  template_key VARCHAR(80) NOT NULL,
  title VARCHAR(200) NOT NULL,
  draft LONGTEXT NOT NULL,
  draft_revision BIGINT NOT NULL DEFAULT 0,
  edits_since BIGINT NOT NULL DEFAULT 0,
  saved_at DATETIME(3) NOT NULL,
  PRIMARY KEY (id),
  UNIQUE KEY templates_by_key (template_key)
);

CREATE TABLE IF NOT EXISTS template_versions (
  template_id BIGINT NOT NULL,
  number INT NOT NULL,
  document LONGTEXT NOT NULL,
  digest CHAR(64) NOT NULL,
  released_at DATETIME(3) NOT NULL,
  released_by VARCHAR(200) NOT NULL,
  note VARCHAR(1000) NOT NULL,
  PRIMARY KEY (template_id, number),
  CONSTRAINT template_versions_template FOREIGN KEY (template_id) REFERENCES templates (id)
);

CREATE TRIGGER IF NOT EXISTS template_versions_stay BEFORE UPDATE ON template_versions FOR EACH ROW
  SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'a released version never changes';

CREATE TABLE IF NOT EXISTS retired_versions (
  template_id BIGINT NOT NULL,
  number INT NOT NULL,
  retired_at DATETIME(3) NOT NULL,
  retired_by VARCHAR(200) NOT NULL,
  PRIMARY KEY (template_id, number),
  CONSTRAINT retired_versions_version FOREIGN KEY (template_id, number) REFERENCES template_versions (template_id, number)
);

CREATE TABLE IF NOT EXISTS version_uses (
  department VARCHAR(40) NOT NULL,
  modality VARCHAR(40) NOT NULL,
  template_id BIGINT NOT NULL,
  number INT NOT NULL,
  decided_at DATETIME(3) NOT NULL,
  decided_by VARCHAR(200) NOT NULL,
  PRIMARY KEY (department, modality),
  KEY version_uses_version (template_id, number),
  CONSTRAINT version_uses_version FOREIGN KEY (template_id, number) REFERENCES template_versions (template_id, number)
);

CREATE TABLE IF NOT EXISTS template_contributors (
  template_id BIGINT NOT NULL,
  person_id BIGINT NOT NULL,
  PRIMARY KEY (template_id, person_id),
  KEY template_contributors_person (person_id),
  CONSTRAINT template_contributors_person FOREIGN KEY (person_id) REFERENCES people (id) ON DELETE CASCADE,
  CONSTRAINT template_contributors_template FOREIGN KEY (template_id) REFERENCES templates (id) ON DELETE CASCADE
);

CREATE TABLE IF NOT EXISTS template_comments (
  id BIGINT NOT NULL AUTO_INCREMENT,
  template_id BIGINT NOT NULL,
  part VARCHAR(80) NULL,
  answers_to BIGINT NULL,
  text VARCHAR(4000) NOT NULL,
  written_at DATETIME(3) NOT NULL,
  written_by VARCHAR(200) NOT NULL,
  closed_at DATETIME(3) NULL,
  closed_by VARCHAR(200) NULL,
  PRIMARY KEY (id),
  KEY template_comments_by_template (template_id, id),
  KEY template_comments_answer (answers_to),
  CONSTRAINT template_comments_answer FOREIGN KEY (answers_to) REFERENCES template_comments (id),
  CONSTRAINT template_comments_template FOREIGN KEY (template_id) REFERENCES templates (id)
);

CREATE TABLE IF NOT EXISTS standing_rules (
  id BIGINT NOT NULL AUTO_INCREMENT,
  department VARCHAR(40) NULL,
  modality VARCHAR(20) NULL,
  weeks INT NULL,
  template_id BIGINT NOT NULL,
  created_by VARCHAR(200) NOT NULL,
  created_at DATETIME(3) NOT NULL,
  PRIMARY KEY (id),
  KEY standing_rules_template (template_id),
  CONSTRAINT standing_rules_template FOREIGN KEY (template_id) REFERENCES templates (id)
);


-- What templates are built from

CREATE TABLE IF NOT EXISTS library_entries (
  id BIGINT NOT NULL AUTO_INCREMENT,
  kind VARCHAR(20) NOT NULL,
  entry_key VARCHAR(80) NOT NULL,
  title VARCHAR(200) NOT NULL,
  revision BIGINT NOT NULL,
  document LONGTEXT NOT NULL,
  saved_at DATETIME(3) NOT NULL,
  saved_by VARCHAR(200) NOT NULL,
  PRIMARY KEY (id),
  UNIQUE KEY library_entries_by_key (kind, entry_key),
  CONSTRAINT library_entries_kind CHECK (kind IN ('house-text', 'image', 'rubric', 'block'))
);


-- Courses, and what is known of each

CREATE TABLE IF NOT EXISTS courses (
  id BIGINT NOT NULL AUTO_INCREMENT,
  platform_id VARCHAR(100) NOT NULL,
  term_code VARCHAR(60) NOT NULL,
  session_code VARCHAR(60) NULL,
  code VARCHAR(60) NOT NULL,
  title VARCHAR(300) NOT NULL,
  department VARCHAR(40) NOT NULL,
  modality VARCHAR(20) NOT NULL,
  weeks INT NOT NULL,
  status VARCHAR(20) NOT NULL,
  class_section_kind VARCHAR(10) NOT NULL,
  topics LONGTEXT NOT NULL,
  template_id BIGINT NULL,
  version INT NULL,
  calendar LONGTEXT NULL,
  parts_taken LONGTEXT NULL,
  strengths_version INT NULL,
  room VARCHAR(100) NULL,
  answers LONGTEXT NULL,
  merged_into BIGINT NULL,
  base_revision INT NOT NULL DEFAULT 0,
  held_to_since DATETIME(3) NULL,
  bodies_known_at DATETIME(3) NULL COMMENT 'when it was last looked at which bodies the course names; null: not yet',
  PRIMARY KEY (id),
  UNIQUE KEY courses_by_platform_id (platform_id),
  KEY courses_by_term (term_code, department),
  KEY courses_version (template_id, version),
  KEY courses_merged_into (merged_into),
  KEY courses_by_code (term_code, code),
  KEY courses_with_term (id, term_code),
  KEY courses_by_bodies_known (bodies_known_at),
  CONSTRAINT courses_merged_into FOREIGN KEY (merged_into) REFERENCES courses (id),
  CONSTRAINT courses_term FOREIGN KEY (term_code) REFERENCES terms (code),
  CONSTRAINT courses_version FOREIGN KEY (template_id, version) REFERENCES template_versions (template_id, number),
  CONSTRAINT courses_status CHECK (status IN ('preparing', 'teaching', 'merged', 'set-aside', 'cancelled'))
);

CREATE TABLE IF NOT EXISTS class_sections (
  course_id BIGINT NOT NULL,
  name VARCHAR(40) NOT NULL,
  PRIMARY KEY (course_id, name),
  CONSTRAINT class_sections_course FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE
);

CREATE TABLE IF NOT EXISTS course_instructors (
  course_id BIGINT NOT NULL,
  email VARCHAR(200) NOT NULL,
  name VARCHAR(200) NOT NULL,
  position INT NOT NULL,
  PRIMARY KEY (course_id, email),
  KEY course_instructors_by_email (email),
  CONSTRAINT course_instructors_course FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE
);

CREATE TABLE IF NOT EXISTS course_decisions (
  course_id BIGINT NOT NULL,
  field VARCHAR(40) NOT NULL,
  decided_by VARCHAR(200) NOT NULL,
  decided_at DATETIME(3) NOT NULL,
  PRIMARY KEY (course_id, field),
  CONSTRAINT course_decisions_course FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE,
  CONSTRAINT course_decisions_field CHECK (field IN ('status', 'class sections', 'instructors'))
);

CREATE TABLE IF NOT EXISTS merges (
  course_id BIGINT NOT NULL,
  into_id BIGINT NOT NULL,
  before_merge LONGTEXT NOT NULL COMMENT 'status of the course, class sections and people of the other one, as JSON',
  merged_by VARCHAR(200) NOT NULL,
  merged_at DATETIME(3) NOT NULL,
  PRIMARY KEY (course_id),
  KEY merges_into (into_id),
  CONSTRAINT merges_course FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE,
  CONSTRAINT merges_into_course FOREIGN KEY (into_id) REFERENCES courses (id)
);

CREATE TABLE IF NOT EXISTS cohort_names (
  course_id BIGINT NOT NULL,
  term_code VARCHAR(60) NOT NULL,
  kind VARCHAR(16) NOT NULL,
  folded_hash CHAR(64) NOT NULL,
  name VARCHAR(2000) NOT NULL,
  PRIMARY KEY (course_id, kind, folded_hash),
  KEY cohort_names_alike (folded_hash, kind, term_code, course_id),
  KEY cohort_names_of_course (course_id, term_code),
  CONSTRAINT cohort_names_of_term FOREIGN KEY (course_id, term_code) REFERENCES courses (id, term_code) ON DELETE CASCADE ON UPDATE CASCADE
);

CREATE TABLE IF NOT EXISTS not_this_week (
  course_id BIGINT NOT NULL,
  instance VARCHAR(200) NOT NULL,
  said_by VARCHAR(200) NOT NULL,
  said_at DATETIME(3) NOT NULL,
  PRIMARY KEY (course_id, instance),
  CONSTRAINT not_this_week_course FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE
);


-- Courses as they were read: a page that is the same in many is kept once

CREATE TABLE IF NOT EXISTS page_bodies (
  hash CHAR(64) NOT NULL,
  html MEDIUMTEXT NOT NULL,
  saved_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  PRIMARY KEY (hash),
  KEY page_bodies_by_age (saved_at)
);

CREATE TABLE IF NOT EXISTS course_bodies (
  course_id BIGINT NOT NULL,
  body CHAR(64) NOT NULL COMMENT 'by which snapshots, bases, undo records and prepared change sets of the course name it',
  hash CHAR(64) NOT NULL COMMENT 'of what of it is kept for all courses',
  own MEDIUMTEXT NULL COMMENT 'what is the course’s own in it, as a JSON list; null: nothing',
  PRIMARY KEY (course_id, body),
  KEY course_bodies_by_hash (hash),
  CONSTRAINT course_bodies_body FOREIGN KEY (hash) REFERENCES page_bodies (hash),
  CONSTRAINT course_bodies_course FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE
);

CREATE TABLE IF NOT EXISTS snapshots (
  course_id BIGINT NOT NULL,
  revision VARCHAR(100) NOT NULL,
  read_at DATETIME(3) NOT NULL,
  digest CHAR(64) NOT NULL,
  document LONGTEXT NOT NULL,
  is_shell TINYINT NOT NULL,
  PRIMARY KEY (course_id),
  CONSTRAINT snapshots_course FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE
);


-- Work in the background: a run, and one task for each of its courses

CREATE TABLE IF NOT EXISTS runs (
  id BIGINT NOT NULL AUTO_INCREMENT,
  kind VARCHAR(10) NOT NULL,
  state VARCHAR(12) NOT NULL,
  title VARCHAR(300) NOT NULL,
  created_by VARCHAR(200) NOT NULL,
  created_at DATETIME(3) NOT NULL,
  finished_at DATETIME(3) NULL,
  as_of DATE NULL,
  template_id BIGINT NULL,
  version INT NULL,
  rollout_order LONGTEXT NULL,
  question CHAR(64) NULL,
  PRIMARY KEY (id),
  KEY runs_version (template_id, version),
  KEY runs_by_who (created_by, state),
  CONSTRAINT runs_version FOREIGN KEY (template_id, version) REFERENCES template_versions (template_id, number),
  CONSTRAINT runs_state CHECK (state IN ('planning', 'planned', 'running', 'paused', 'done', 'cancelled')),
  CONSTRAINT runs_kind CHECK (kind IN ('rollout', 'check', 'renames', 'mends'))
);

CREATE TABLE IF NOT EXISTS tasks (
  id BIGINT NOT NULL AUTO_INCREMENT,
  run_id BIGINT NOT NULL,
  course_id BIGINT NOT NULL,
  state VARCHAR(12) NOT NULL,
  attempts INT NOT NULL DEFAULT 0,
  next_at DATETIME(3) NOT NULL,
  lease_until DATETIME(3) NULL,
  lease_epoch BIGINT NOT NULL DEFAULT 0,
  message VARCHAR(2000) NOT NULL DEFAULT '',
  finished_at DATETIME(3) NULL,
  plan_digest CHAR(64) NULL,
  idempotency_key VARCHAR(100) NULL,
  payload_digest CHAR(64) NULL,
  payload LONGBLOB NULL,
  proposal LONGTEXT NULL,
  plan_summary LONGTEXT NULL,
  plan_shape VARCHAR(64) NULL,
  decisions LONGTEXT NULL,
  worked_by VARCHAR(100) NULL,
  prepared_for CHAR(64) NULL,
  source_course_id BIGINT NULL,
  PRIMARY KEY (id),
  UNIQUE KEY tasks_by_run (run_id, course_id),
  KEY tasks_to_claim (state, next_at),
  KEY tasks_course (course_id),
  KEY tasks_source (source_course_id),
  KEY tasks_by_run_state (run_id, state),
  CONSTRAINT tasks_course FOREIGN KEY (course_id) REFERENCES courses (id),
  CONSTRAINT tasks_run FOREIGN KEY (run_id) REFERENCES runs (id),
  CONSTRAINT tasks_source FOREIGN KEY (source_course_id) REFERENCES courses (id),
  CONSTRAINT tasks_sent CHECK (state <> 'sent' OR idempotency_key IS NOT NULL AND payload IS NOT NULL),
  CONSTRAINT tasks_state CHECK (state IN ('to-plan', 'planned', 'waiting', 'at-work', 'sent', 'held', 'done', 'failed', 'cancelled'))
);

CREATE TABLE IF NOT EXISTS rehearsals (
  id VARCHAR(100) NOT NULL,
  run_id BIGINT NOT NULL,
  course_id BIGINT NOT NULL,
  created_by VARCHAR(200) NOT NULL,
  created_at DATETIME(3) NOT NULL,
  discarded_at DATETIME(3) NULL,
  PRIMARY KEY (id),
  KEY rehearsals_run (run_id),
  KEY rehearsals_course (course_id),
  CONSTRAINT rehearsals_course FOREIGN KEY (course_id) REFERENCES courses (id),
  CONSTRAINT rehearsals_run FOREIGN KEY (run_id) REFERENCES runs (id)
);


-- Rollouts: what was deployed, and what the next merge starts from

CREATE TABLE IF NOT EXISTS deployments (
  course_id BIGINT NOT NULL,
  number INT NOT NULL,
  run_id BIGINT NOT NULL,
  template_id BIGINT NULL,
  version INT NULL,
  deployed_at DATETIME(3) NOT NULL,
  deployed_by VARCHAR(200) NOT NULL,
  engine VARCHAR(40) NOT NULL,
  idempotency_key VARCHAR(100) NOT NULL,
  parts INT NOT NULL,
  expansion LONGBLOB NOT NULL,
  mode VARCHAR(20) NOT NULL DEFAULT 'version',
  receipt LONGTEXT NULL,
  undo_record LONGBLOB NULL,
  undone_by BIGINT NULL,
  held_to_before LONGTEXT NULL,
  proof LONGTEXT NULL COMMENT 'the course read again, held against the plan',
  PRIMARY KEY (course_id, number),
  UNIQUE KEY deployments_by_key (idempotency_key),
  KEY deployments_version (template_id, version),
  KEY deployments_by_run (run_id, course_id),
  CONSTRAINT deployments_course FOREIGN KEY (course_id) REFERENCES courses (id),
  CONSTRAINT deployments_version FOREIGN KEY (template_id, version) REFERENCES template_versions (template_id, number)
);

CREATE TABLE IF NOT EXISTS course_bases (
  course_id BIGINT NOT NULL,
  document LONGBLOB NOT NULL,
  PRIMARY KEY (course_id),
  CONSTRAINT course_bases_course FOREIGN KEY (course_id) REFERENCES courses (id)
);


-- Checks

CREATE TABLE IF NOT EXISTS check_results (
  id BIGINT NOT NULL AUTO_INCREMENT,
  course_id BIGINT NOT NULL,
  cache_key CHAR(64) NOT NULL,
  as_of DATE NOT NULL,
  holds_from DATE NULL,
  holds_until DATE NULL,
  checked_at DATETIME(3) NOT NULL,
  readiness VARCHAR(24) NOT NULL,
  open_musts INT NOT NULL,
  open_shoulds INT NOT NULL,
  counts LONGTEXT NOT NULL,
  crossings LONGTEXT NOT NULL,
  findings LONGTEXT NOT NULL,
  outlook LONGTEXT NOT NULL,
  rest LONGTEXT NOT NULL,
  PRIMARY KEY (id),
  UNIQUE KEY check_results_by_key (course_id, cache_key, as_of),
  KEY check_results_latest (course_id, id),
  CONSTRAINT check_results_course FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE
);


-- What people said of a finding or a pairing

CREATE TABLE IF NOT EXISTS waivers (
  id BIGINT NOT NULL AUTO_INCREMENT,
  course_id BIGINT NOT NULL,
  scope VARCHAR(10) NOT NULL,
  rule VARCHAR(80) NOT NULL,
  fingerprint VARCHAR(100) NULL,
  evidence VARCHAR(100) NULL,
  from_date DATE NOT NULL,
  until_date DATE NULL,
  reason VARCHAR(2000) NOT NULL,
  state VARCHAR(10) NOT NULL,
  asked_by VARCHAR(200) NOT NULL,
  asked_at DATETIME(3) NOT NULL,
  decided_by VARCHAR(200) NULL,
  decided_at DATETIME(3) NULL,
  answer VARCHAR(2000) NOT NULL DEFAULT '',
  PRIMARY KEY (id),
  KEY waivers_by_course (course_id, state),
  CONSTRAINT waivers_course FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE,
  CONSTRAINT waivers_scope CHECK (scope IN ('evidence', 'place', 'rule')),
  CONSTRAINT waivers_state CHECK (state IN ('asked', 'approved', 'refused', 'withdrawn')),
  CONSTRAINT waivers_place CHECK (scope = 'rule' OR fingerprint IS NOT NULL)
);

CREATE TABLE IF NOT EXISTS attestations (
  id BIGINT NOT NULL AUTO_INCREMENT,
  course_id BIGINT NOT NULL,
  rule VARCHAR(80) NOT NULL,
  fingerprint VARCHAR(100) NOT NULL,
  given_by VARCHAR(200) NOT NULL,
  given_on DATE NOT NULL,
  until_date DATE NULL,
  words VARCHAR(2000) NOT NULL,
  taken_back DATETIME(3) NULL,
  PRIMARY KEY (id),
  KEY attestations_by_course (course_id),
  CONSTRAINT attestations_course FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE
);

CREATE TABLE IF NOT EXISTS joins_by_hand (
  course_id BIGINT NOT NULL,
  what VARCHAR(10) NOT NULL,
  expected VARCHAR(200) NOT NULL,
  found VARCHAR(100) NOT NULL,
  said_by VARCHAR(200) NOT NULL,
  said_at DATETIME(3) NOT NULL,
  PRIMARY KEY (course_id, expected, found),
  CONSTRAINT joins_course FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE,
  CONSTRAINT joins_what CHECK (what IN ('join', 'unjoin'))
);

CREATE TABLE IF NOT EXISTS follow_ups (
  course_id BIGINT NOT NULL,
  fingerprint VARCHAR(100) NOT NULL,
  state VARCHAR(10) NOT NULL,
  owner VARCHAR(200) NOT NULL,
  message VARCHAR(2000) NOT NULL,
  note VARCHAR(2000) NOT NULL DEFAULT '',
  raised_by VARCHAR(200) NOT NULL,
  raised_at DATETIME(3) NOT NULL,
  promised_for DATE NULL,
  answer VARCHAR(2000) NOT NULL DEFAULT '',
  answered_by VARCHAR(200) NULL,
  answered_at DATETIME(3) NULL,
  closed_at DATETIME(3) NULL,
  PRIMARY KEY (course_id, fingerprint),
  KEY follow_ups_by_owner (owner, state),
  CONSTRAINT follow_ups_course FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE,
  CONSTRAINT follow_ups_state CHECK (state IN ('raised', 'promised', 'answered', 'mended', 'closed')),
  CONSTRAINT follow_ups_promise CHECK (state <> 'promised' OR promised_for IS NOT NULL)
);


-- Messages

CREATE TABLE IF NOT EXISTS messages (
  id BIGINT NOT NULL AUTO_INCREMENT,
  recipient VARCHAR(200) NOT NULL,
  run_id BIGINT NULL,
  sent_at DATETIME(3) NOT NULL,
  subject VARCHAR(300) NOT NULL,
  body VARCHAR(4000) NOT NULL,
  read_at DATETIME(3) NULL,
  PRIMARY KEY (id),
  UNIQUE KEY messages_by_run (run_id, subject),
  KEY messages_by_recipient (recipient, sent_at),
  CONSTRAINT messages_run FOREIGN KEY (run_id) REFERENCES runs (id)
);


-- Who did what

CREATE TABLE IF NOT EXISTS audit (
  id BIGINT NOT NULL AUTO_INCREMENT,
  at DATETIME(3) NOT NULL,
  who VARCHAR(200) NOT NULL,
  what VARCHAR(80) NOT NULL,
  subject VARCHAR(200) NOT NULL,
  from_value LONGTEXT NULL,
  to_value LONGTEXT NULL,
  PRIMARY KEY (id),
  KEY audit_by_who (who, id),
  KEY audit_by_what (what, id)
);
