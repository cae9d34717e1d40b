CREATE TABLE terms (
  code      VARCHAR(60)  NOT NULL PRIMARY KEY,
  title     VARCHAR(200) NOT NULL,
  first_day DATE         NOT NULL,
  last_day  DATE         NOT NULL,
  time_zone VARCHAR(60)  NOT NULL,
  document  LONGTEXT     NOT NULL,
  CONSTRAINT terms_dates CHECK (first_day <= last_day)
)
