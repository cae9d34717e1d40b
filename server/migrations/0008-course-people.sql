-- Several people of a course: one of those who teach it owns it, others help; a module may have an owner of its own.

RENAME TABLE IF EXISTS course_instructors TO course_people;
ALTER TABLE course_people ADD COLUMN IF NOT EXISTS duty VARCHAR(16) NOT NULL DEFAULT 'instructor' AFTER name;
ALTER TABLE course_people ADD COLUMN IF NOT EXISTS owner_of BIGINT AS (IF(duty = 'owner', course_id, NULL)) VIRTUAL
  COMMENT 'the course, for its owner: unique, so that it has one';
ALTER TABLE course_people ADD UNIQUE KEY IF NOT EXISTS course_people_one_owner (owner_of);
ALTER TABLE course_people DROP CONSTRAINT IF EXISTS course_people_duty;
ALTER TABLE course_people ADD CONSTRAINT course_people_duty CHECK (duty IN ('owner', 'instructor', 'assistant'));

CREATE TABLE IF NOT EXISTS module_owners (
  course_id BIGINT NOT NULL,
  module VARCHAR(200) NOT NULL COMMENT 'part instance, or platform id where it is no part of the template',
  email VARCHAR(200) NOT NULL,
  PRIMARY KEY (course_id, module),
  KEY module_owners_person (course_id, email),
  CONSTRAINT module_owners_person FOREIGN KEY (course_id, email) REFERENCES course_people (course_id, email)
    ON DELETE CASCADE ON UPDATE CASCADE
);

ALTER TABLE course_decisions DROP CONSTRAINT IF EXISTS course_decisions_field;
ALTER TABLE course_decisions ADD CONSTRAINT course_decisions_field CHECK (field IN ('status', 'class sections', 'instructors', 'duties'));

ALTER TABLE messages ADD COLUMN IF NOT EXISTS course_id BIGINT NULL AFTER template_id;
ALTER TABLE messages ADD KEY IF NOT EXISTS messages_course (course_id, recipient);
ALTER TABLE messages ADD CONSTRAINT messages_course FOREIGN KEY IF NOT EXISTS (course_id) REFERENCES courses (id) ON DELETE CASCADE;
