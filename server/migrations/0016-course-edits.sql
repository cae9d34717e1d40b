-- How much people changed in courses since something was deployed to them, by the day on which it was seen.

CREATE TABLE IF NOT EXISTS course_edits (
  course_id BIGINT NOT NULL,
  day DATE NOT NULL COMMENT 'of the institution',
  edits INT NOT NULL COMMENT 'modules and items added, changed or removed since the course was read before, over the day',
  PRIMARY KEY (course_id, day),
  CONSTRAINT course_edits_course FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE
);
