CREATE TABLE bases (
  course_id   BIGINT       NOT NULL,
  instance    VARCHAR(200) NOT NULL,
  platform_id VARCHAR(100) NOT NULL,
  part        VARCHAR(80)  NOT NULL,
  repetition  VARCHAR(80)  NULL,
  number      INT          NULL,
  echo        LONGTEXT     NOT NULL,
  sent        LONGTEXT     NOT NULL,
  PRIMARY KEY (course_id, instance),
  UNIQUE KEY bases_by_platform_id (course_id, platform_id),
  CONSTRAINT bases_course FOREIGN KEY (course_id) REFERENCES courses (id)
)
