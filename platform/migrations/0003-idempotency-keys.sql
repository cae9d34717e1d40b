CREATE TABLE idempotency_keys (
  idempotency_key VARCHAR(100) NOT NULL PRIMARY KEY,
  state           VARCHAR(10)  NOT NULL,
  digest          CHAR(64)     NULL,
  answer          LONGTEXT     NULL,
  created_at      DATETIME(3)  NOT NULL,
  CONSTRAINT idempotency_keys_state CHECK (state IN ('applied', 'voided'))
)
