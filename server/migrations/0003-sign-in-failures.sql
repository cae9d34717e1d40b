CREATE TABLE sign_in_failures (
  id        BIGINT       NOT NULL AUTO_INCREMENT PRIMARY KEY,
  email     VARCHAR(200) NOT NULL,
  failed_at DATETIME(3)  NOT NULL,
  KEY sign_in_failures_by_email (email, failed_at)
)
