-- Every table of the practice platform. Each statement can be run again.

-- The practice platform

CREATE TABLE IF NOT EXISTS courses (
  id VARCHAR(60) NOT NULL,
  name VARCHAR(2000) NOT NULL,
  status VARCHAR(20) NOT NULL,
  revision BIGINT NOT NULL,
  change_cursor BIGINT NOT NULL,
  document LONGTEXT NOT NULL,
  applied_sets INT NOT NULL DEFAULT 0,
  applied_changes INT NOT NULL DEFAULT 0,
  PRIMARY KEY (id),
  UNIQUE KEY courses_by_cursor (change_cursor),
  CONSTRAINT courses_document_json CHECK (json_valid(document))
);

CREATE TABLE IF NOT EXISTS enrolments (
  course_id VARCHAR(60) NOT NULL,
  email VARCHAR(200) NOT NULL,
  name VARCHAR(200) NOT NULL,
  PRIMARY KEY (course_id, email),
  CONSTRAINT enrolments_course FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE
);

CREATE TABLE IF NOT EXISTS counters (
  name VARCHAR(40) NOT NULL,
  next BIGINT NOT NULL,
  PRIMARY KEY (name)
);

CREATE TABLE IF NOT EXISTS idempotency_keys (
  idempotency_key VARCHAR(100) NOT NULL,
  state VARCHAR(10) NOT NULL,
  digest CHAR(64) NULL,
  answer LONGTEXT NULL,
  created_at DATETIME(3) NOT NULL,
  PRIMARY KEY (idempotency_key),
  CONSTRAINT idempotency_keys_state CHECK (state IN ('applied', 'voided'))
);

CREATE TABLE IF NOT EXISTS assets (
  file_name VARCHAR(120) NOT NULL,
  media_type VARCHAR(80) NOT NULL,
  bytes MEDIUMBLOB NOT NULL,
  PRIMARY KEY (file_name)
);

CREATE TABLE IF NOT EXISTS misbehaviours (
  name VARCHAR(40) NOT NULL,
  remaining BIGINT NOT NULL,
  PRIMARY KEY (name)
);
