-- Files that instructors put in as answers: kept here until the platform has them, and a while longer.

CREATE TABLE IF NOT EXISTS answer_files (
  course_id INT NOT NULL,
  content CHAR(64) NOT NULL COMMENT 'SHA-256 of the bytes',
  file_name VARCHAR(300) NOT NULL COMMENT 'as its kind was told by its content',
  for_answers_only TINYINT NOT NULL COMMENT 'whether its bytes are kept for answers alone',
  put_at DATETIME(3) NOT NULL,
  PRIMARY KEY (course_id, content, file_name),
  KEY answer_files_by_content (content)
);
