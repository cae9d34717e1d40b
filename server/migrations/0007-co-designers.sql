-- Designers who look after a template together: each is told what another changes.

CREATE TABLE IF NOT EXISTS template_designers (
  template_id BIGINT NOT NULL,
  person_id BIGINT NOT NULL,
  PRIMARY KEY (template_id, person_id),
  KEY template_designers_person (person_id),
  CONSTRAINT template_designers_person FOREIGN KEY (person_id) REFERENCES people (id) ON DELETE CASCADE,
  CONSTRAINT template_designers_template FOREIGN KEY (template_id) REFERENCES templates (id) ON DELETE CASCADE
);

ALTER TABLE messages ADD COLUMN IF NOT EXISTS template_id BIGINT NULL AFTER run_id;
ALTER TABLE messages ADD KEY IF NOT EXISTS messages_template (template_id, recipient);
ALTER TABLE messages ADD CONSTRAINT messages_template FOREIGN KEY IF NOT EXISTS (template_id) REFERENCES templates (id) ON DELETE CASCADE;

INSERT IGNORE INTO template_designers (template_id, person_id)
SELECT DISTINCT template_versions.template_id, people.id
FROM template_versions
JOIN people ON people.email = template_versions.released_by;
