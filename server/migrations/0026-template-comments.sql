CREATE TABLE template_comments (
  id          BIGINT        NOT NULL AUTO_INCREMENT PRIMARY KEY,
  template_id BIGINT        NOT NULL,
  part        VARCHAR(80)   NULL,
  answers_to  BIGINT        NULL,
  text        VARCHAR(4000) NOT NULL,
  written_at  DATETIME(3)   NOT NULL,
  written_by  VARCHAR(200)  NOT NULL,
  closed_at   DATETIME(3)   NULL,
  closed_by   VARCHAR(200)  NULL,
  KEY template_comments_by_template (template_id, id),
  CONSTRAINT template_comments_template FOREIGN KEY (template_id) REFERENCES templates (id),
  CONSTRAINT template_comments_answer FOREIGN KEY (answers_to) REFERENCES template_comments (id)
)
