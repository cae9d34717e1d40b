CREATE TABLE version_uses (
  department  VARCHAR(40)  NOT NULL,
  modality    VARCHAR(40)  NOT NULL,
  template_id BIGINT       NOT NULL,
  number      INT          NOT NULL,
  decided_at  DATETIME(3)  NOT NULL,
  decided_by  VARCHAR(200) NOT NULL,
  PRIMARY KEY (department, modality),
  CONSTRAINT version_uses_version FOREIGN KEY (template_id, number) REFERENCES template_versions (template_id, number)
)
