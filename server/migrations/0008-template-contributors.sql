CREATE TABLE template_contributors (
  template_id BIGINT NOT NULL,
  person_id   BIGINT NOT NULL,
  PRIMARY KEY (template_id, person_id),
  CONSTRAINT template_contributors_template FOREIGN KEY (template_id) REFERENCES templates (id) ON DELETE CASCADE,
  CONSTRAINT template_contributors_person FOREIGN KEY (person_id) REFERENCES people (id) ON DELETE CASCADE
)
