-- Files that items show and courses hold: their bytes by what they are, in pieces.

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
