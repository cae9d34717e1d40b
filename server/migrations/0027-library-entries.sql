CREATE TABLE library_entries (
  id        BIGINT       NOT NULL AUTO_INCREMENT PRIMARY KEY,
  kind      VARCHAR(20)  NOT NULL,
  entry_key VARCHAR(80)  NOT NULL,
  title     VARCHAR(200) NOT NULL,
  revision  BIGINT       NOT NULL,
  document  LONGTEXT     NOT NULL,
  saved_at  DATETIME(3)  NOT NULL,
  saved_by  VARCHAR(200) NOT NULL,
  UNIQUE KEY library_entries_by_key (kind, entry_key),
  CONSTRAINT library_entries_kind CHECK (kind IN ('house-text', 'image', 'rubric', 'block'))
)
