CREATE TABLE standing_rules (
  id          BIGINT      NOT NULL AUTO_INCREMENT PRIMARY KEY,
  department  VARCHAR(40) NULL,
  modality    VARCHAR(20) NULL,
  weeks       INT         NULL,
  template_id BIGINT      NOT NULL,
  created_by  VARCHAR(200) NOT NULL,
  created_at  DATETIME(3) NOT NULL,
  CONSTRAINT standing_rules_template FOREIGN KEY (template_id) REFERENCES templates (id)
)
