CREATE TABLE audit (
  id         BIGINT       NOT NULL AUTO_INCREMENT PRIMARY KEY,
  at         DATETIME(3)  NOT NULL,
  who        VARCHAR(200) NOT NULL,
  what       VARCHAR(80)  NOT NULL,
  subject    VARCHAR(200) NOT NULL,
  from_value LONGTEXT     NULL,
  to_value   LONGTEXT     NULL
)
