CREATE TABLE template_versions (
  template_id BIGINT        NOT NULL,
  number      INT           NOT NULL,
  document    LONGTEXT      NOT NULL,
  digest      CHAR(64)      NOT NULL,
  released_at DATETIME(3)   NOT NULL,
  released_by VARCHAR(200)  NOT NULL,
  note        VARCHAR(1000) NOT NULL,
  PRIMARY KEY (template_id, number),
  CONSTRAINT template_versions_template FOREIGN KEY (template_id) REFERENCES templates (id)
)
