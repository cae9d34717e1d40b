CREATE TRIGGER template_versions_stay BEFORE UPDATE ON template_versions FOR EACH ROW
  SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'a released version never changes'
