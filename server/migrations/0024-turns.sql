-- Whose turn it is: the first courses of each run come before the last of a long one, so that one course that somebody waits for
-- is not behind two thousand of a night's check. A second for each place in its run: more than a course takes.
ALTER TABLE tasks ADD COLUMN IF NOT EXISTS place INT NOT NULL DEFAULT 0 COMMENT 'in its run' AFTER course_id;
ALTER TABLE tasks ADD COLUMN IF NOT EXISTS turn DATETIME(3) GENERATED ALWAYS AS (TIMESTAMPADD(SECOND, place, next_at)) PERSISTENT COMMENT 'the earlier goes first' AFTER next_at;
ALTER TABLE tasks ADD KEY IF NOT EXISTS tasks_in_turn (state, turn, next_at, run_id);
ALTER TABLE tasks DROP KEY IF EXISTS tasks_to_claim;
