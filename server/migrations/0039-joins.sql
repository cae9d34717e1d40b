CREATE TABLE joins_by_hand (
  course_id BIGINT       NOT NULL,
  what      VARCHAR(10)  NOT NULL,
  expected  VARCHAR(200) NOT NULL,
  found     VARCHAR(100) NOT NULL,
  said_by   VARCHAR(200) NOT NULL,
  said_at   DATETIME(3)  NOT NULL,
  PRIMARY KEY (course_id, expected, found),
  CONSTRAINT joins_course FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE,
  CONSTRAINT joins_what CHECK (what IN ('join', 'unjoin'))
)
