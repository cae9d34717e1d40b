CREATE TABLE sessions (
  token_hash CHAR(64)    NOT NULL PRIMARY KEY,
  person_id  BIGINT      NOT NULL,
  expires_at DATETIME(3) NOT NULL,
  KEY sessions_by_expiry (expires_at),
  CONSTRAINT sessions_person FOREIGN KEY (person_id) REFERENCES people (id) ON DELETE CASCADE
)
