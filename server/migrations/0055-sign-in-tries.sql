CREATE TABLE sign_in_tries (
  scope VARCHAR(10)  NOT NULL,
  name  VARCHAR(200) NOT NULL,
  since DATETIME(3)  NOT NULL,
  tries INT UNSIGNED NOT NULL,
  PRIMARY KEY (scope, name),
  KEY sign_in_tries_by_since (since),
  CONSTRAINT sign_in_tries_scope CHECK (scope IN ('account', 'client', 'device', 'all'))
)
