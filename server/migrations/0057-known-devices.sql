CREATE TABLE known_devices (
  token_hash CHAR(64)    NOT NULL PRIMARY KEY,
  person_id  BIGINT      NOT NULL,
  used_at    DATETIME(3) NOT NULL,
  KEY known_devices_by_use (used_at),
  CONSTRAINT known_devices_person FOREIGN KEY (person_id) REFERENCES people (id) ON DELETE CASCADE
)
