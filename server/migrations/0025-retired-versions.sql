CREATE TABLE retired_versions (
  template_id BIGINT       NOT NULL,
  number      INT          NOT NULL,
  retired_at  DATETIME(3)  NOT NULL,
  retired_by  VARCHAR(200) NOT NULL,
  PRIMARY KEY (template_id, number),
  CONSTRAINT retired_versions_version FOREIGN KEY (template_id, number) REFERENCES template_versions (template_id, number)
)
