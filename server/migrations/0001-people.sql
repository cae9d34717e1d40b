CREATE TABLE people (
  id            BIGINT       NOT NULL AUTO_INCREMENT PRIMARY KEY,
  email         VARCHAR(200) NOT NULL,
  name          VARCHAR(200) NOT NULL,
  role          VARCHAR(20)  NOT NULL,
  password_hash VARCHAR(200) NOT NULL,
  UNIQUE KEY people_by_email (email),
  CONSTRAINT people_role CHECK (role IN ('designer', 'contributor', 'instructor', 'reviewer', 'administrator'))
)
