-- Files: their bytes by what they are, in pieces, and what was read of them.

CREATE TABLE IF NOT EXISTS file_contents (
  id BIGINT NOT NULL AUTO_INCREMENT,
  content CHAR(64) NULL COMMENT 'SHA-256 of the bytes; null while they arrive',
  bytes INT NOT NULL DEFAULT 0,
  begun_at DATETIME(3) NOT NULL,
  PRIMARY KEY (id),
  UNIQUE KEY file_contents_by_content (content)
);

CREATE TABLE IF NOT EXISTS file_pieces (
  file_id BIGINT NOT NULL,
  number INT NOT NULL COMMENT 'from 0',
  bytes MEDIUMBLOB NOT NULL,
  PRIMARY KEY (file_id, number),
  CONSTRAINT file_pieces_file FOREIGN KEY (file_id) REFERENCES file_contents (id) ON DELETE CASCADE
);

CREATE TABLE IF NOT EXISTS file_readings (
  content CHAR(64) NOT NULL COMMENT 'SHA-256 of the bytes, whether they are kept here or not',
  words MEDIUMTEXT NULL COMMENT 'its text, a line for each paragraph; null where it cannot be read as text',
  read_at DATETIME(3) NOT NULL,
  PRIMARY KEY (content)
);
