CREATE TABLE deployments (
  course_id       BIGINT       NOT NULL,
  number          INT          NOT NULL,
  run_id          BIGINT       NOT NULL,
  template_id     BIGINT       NOT NULL,
  version         INT          NOT NULL,
  deployed_at     DATETIME(3)  NOT NULL,
  deployed_by     VARCHAR(200) NOT NULL,
  engine          VARCHAR(40)  NOT NULL,
  idempotency_key VARCHAR(100) NOT NULL,
  parts           INT          NOT NULL,
  expansion       LONGTEXT     NOT NULL,
  PRIMARY KEY (course_id, number),
  UNIQUE KEY deployments_by_key (idempotency_key),
  CONSTRAINT deployments_course FOREIGN KEY (course_id) REFERENCES courses (id),
  CONSTRAINT deployments_version FOREIGN KEY (template_id, version) REFERENCES template_versions (template_id, number)
)
