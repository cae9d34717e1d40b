CREATE TABLE assets (
  file_name  VARCHAR(120) NOT NULL PRIMARY KEY,
  media_type VARCHAR(80)  NOT NULL,
  bytes      MEDIUMBLOB   NOT NULL
)
