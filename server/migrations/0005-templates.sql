CREATE TABLE templates (
  id             BIGINT       NOT NULL AUTO_INCREMENT PRIMARY KEY,
  template_key   VARCHAR(80)  NOT NULL,
  title          VARCHAR(200) NOT NULL,
  draft          LONGTEXT     NOT NULL,
  draft_revision BIGINT       NOT NULL DEFAULT 0,
  edits_since    BIGINT       NOT NULL DEFAULT 0,
  saved_at       DATETIME(3)  NOT NULL,
  UNIQUE KEY templates_by_key (template_key)
)
