CREATE TABLE runs (
  id          BIGINT       NOT NULL AUTO_INCREMENT PRIMARY KEY,
  kind        VARCHAR(10)  NOT NULL,
  state       VARCHAR(12)  NOT NULL,
  title       VARCHAR(300) NOT NULL,
  created_by  VARCHAR(200) NOT NULL,
  created_at  DATETIME(3)  NOT NULL,
  finished_at DATETIME(3)  NULL,
  as_of       DATE         NULL,
  template_id BIGINT       NULL,
  version     INT          NULL,
  CONSTRAINT runs_kind CHECK (kind IN ('rollout', 'check')),
  CONSTRAINT runs_state CHECK (state IN ('running', 'paused', 'done', 'cancelled')),
  CONSTRAINT runs_version FOREIGN KEY (template_id, version) REFERENCES template_versions (template_id, number)
)
