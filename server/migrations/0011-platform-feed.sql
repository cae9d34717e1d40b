-- Where we are in the platform's list of changes, and which worker asks it; a worker that is gone lets go when its time is up.

CREATE TABLE IF NOT EXISTS platform_feed (
  id TINYINT NOT NULL,
  position BIGINT NOT NULL DEFAULT 0 COMMENT 'the cursor that the platform gave last; 0: from the beginning',
  holder VARCHAR(100) NULL,
  held_until DATETIME(3) NULL,
  PRIMARY KEY (id)
);
INSERT IGNORE INTO platform_feed (id) VALUES (1);

ALTER TABLE check_results ADD KEY IF NOT EXISTS check_results_told (told_at);
