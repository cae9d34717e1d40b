-- Whom an identity provider knows somebody as, and which of their roles its claims gave.

CREATE TABLE IF NOT EXISTS outside_identities (
  issuer VARCHAR(300) NOT NULL,
  subject VARCHAR(255) NOT NULL,
  person_id BIGINT NOT NULL,
  PRIMARY KEY (issuer, subject),
  UNIQUE KEY outside_identities_of_person (person_id, issuer),
  CONSTRAINT outside_identities_person FOREIGN KEY (person_id) REFERENCES people (id) ON DELETE CASCADE
);

ALTER TABLE person_roles ADD COLUMN IF NOT EXISTS by_claims TINYINT NOT NULL DEFAULT 0;
