CREATE TABLE courses (
  id            VARCHAR(60)  NOT NULL PRIMARY KEY,
  name          VARCHAR(2000) NOT NULL,
  status        VARCHAR(20)  NOT NULL,
  revision      BIGINT       NOT NULL,
  change_cursor BIGINT       NOT NULL,
  document      LONGTEXT     NOT NULL,
  UNIQUE KEY courses_by_cursor (change_cursor),
  CONSTRAINT courses_document_json CHECK (JSON_VALID(document))
)
