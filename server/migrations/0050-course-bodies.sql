CREATE TABLE course_bodies (
  course_id BIGINT     NOT NULL,
  body      CHAR(64)   NOT NULL COMMENT 'by which snapshots, bases, undo records and prepared change sets of the course name it',
  hash      CHAR(64)   NOT NULL COMMENT 'of what of it is kept for all courses',
  own       MEDIUMTEXT NULL COMMENT 'what is the course’s own in it, as a JSON list; null: nothing',
  PRIMARY KEY (course_id, body),
  KEY course_bodies_by_hash (hash),
  CONSTRAINT course_bodies_course FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE,
  CONSTRAINT course_bodies_body FOREIGN KEY (hash) REFERENCES page_bodies (hash)
)
