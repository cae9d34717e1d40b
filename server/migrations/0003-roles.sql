-- Somebody may have several roles, and those of designer and reviewer may be about some departments only.

CREATE TABLE IF NOT EXISTS person_roles (
  person_id BIGINT NOT NULL,
  role VARCHAR(20) NOT NULL,
  PRIMARY KEY (person_id, role),
  KEY person_roles_by_role (role, person_id),
  CONSTRAINT person_roles_person FOREIGN KEY (person_id) REFERENCES people (id) ON DELETE CASCADE,
  CONSTRAINT person_roles_role CHECK (role IN ('designer', 'contributor', 'instructor', 'reviewer', 'administrator'))
);

CREATE TABLE IF NOT EXISTS person_departments (
  person_id BIGINT NOT NULL,
  department VARCHAR(40) NOT NULL,
  PRIMARY KEY (person_id, department),
  CONSTRAINT person_departments_person FOREIGN KEY (person_id) REFERENCES people (id) ON DELETE CASCADE
);

INSERT IGNORE INTO person_roles (person_id, role)
SELECT id, role
FROM people;
