CREATE TABLE misbehaviours (
  name      VARCHAR(40) NOT NULL PRIMARY KEY,
  remaining BIGINT      NOT NULL
)
