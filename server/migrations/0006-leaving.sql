-- Who has left stays one and the same person, without a name: “a former designer (17)”. A released version never changes, but for
-- that.

ALTER TABLE people ADD COLUMN IF NOT EXISTS left_at DATETIME(3) NULL;

CREATE OR REPLACE TRIGGER template_versions_stay BEFORE UPDATE ON template_versions FOR EACH ROW
  IF NOT (
    NEW.template_id <=> OLD.template_id AND NEW.number <=> OLD.number AND NEW.document <=> OLD.document
    AND NEW.digest <=> OLD.digest AND NEW.released_at <=> OLD.released_at AND NEW.note <=> OLD.note
    AND NEW.released_by LIKE 'a former %'
  ) THEN SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'a released version never changes'; END IF;
