-- Whom the roster names is known before anybody lets them in; a password comes with the first sign-in. That the roles are rows
-- now, and the column goes, is a step of its own: the step before may be run again.

ALTER TABLE people DROP CONSTRAINT IF EXISTS people_role, DROP COLUMN IF EXISTS role;
ALTER TABLE people MODIFY COLUMN password_hash VARCHAR(200) NULL COMMENT 'null: no local account, or none yet';
ALTER TABLE people ADD COLUMN IF NOT EXISTS revision INT NOT NULL DEFAULT 0;
ALTER TABLE people ADD COLUMN IF NOT EXISTS deactivated_at DATETIME(3) NULL;
ALTER TABLE people ADD COLUMN IF NOT EXISTS signed_in_at DATETIME(3) NULL COMMENT 'last';
ALTER TABLE people ADD COLUMN IF NOT EXISTS preferences LONGTEXT NOT NULL DEFAULT '{}';
ALTER TABLE people ADD KEY IF NOT EXISTS people_by_name (name, id);

CREATE TABLE IF NOT EXISTS one_time_links (
  token_hash CHAR(64) NOT NULL,
  person_id BIGINT NOT NULL,
  purpose VARCHAR(10) NOT NULL,
  made_by VARCHAR(200) NOT NULL,
  expires_at DATETIME(3) NOT NULL,
  PRIMARY KEY (token_hash),
  UNIQUE KEY one_time_links_of_person (person_id),
  KEY one_time_links_by_expiry (expires_at),
  CONSTRAINT one_time_links_person FOREIGN KEY (person_id) REFERENCES people (id) ON DELETE CASCADE,
  CONSTRAINT one_time_links_purpose CHECK (purpose IN ('invitation', 'reset'))
);

CREATE TABLE IF NOT EXISTS account_requests (
  id BIGINT NOT NULL AUTO_INCREMENT,
  email VARCHAR(200) NOT NULL,
  name VARCHAR(200) NOT NULL,
  words VARCHAR(2000) NOT NULL,
  asked_at DATETIME(3) NOT NULL,
  state VARCHAR(10) NOT NULL,
  answered_by VARCHAR(200) NULL,
  answered_at DATETIME(3) NULL,
  answer VARCHAR(2000) NOT NULL DEFAULT '',
  PRIMARY KEY (id),
  KEY account_requests_by_state (state, id),
  KEY account_requests_by_email (email, state),
  CONSTRAINT account_requests_state CHECK (state IN ('asked', 'let-in', 'refused'))
);

INSERT IGNORE INTO people (email, name)
SELECT LOWER(email), MIN(name)
FROM course_instructors
GROUP BY LOWER(email);

INSERT IGNORE INTO person_roles (person_id, role)
SELECT people.id, 'instructor'
FROM people
WHERE EXISTS (SELECT 1 FROM course_instructors WHERE course_instructors.email = people.email);
