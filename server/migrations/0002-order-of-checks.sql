-- Which check of a course is the latest, and whether it was told since what the course is held to last changed, is told by the
-- machine’s clock, which nobody moves: a demonstration that starts again moves the institution’s back. `checked_at` stays
-- what people are shown.

ALTER TABLE check_results ADD COLUMN IF NOT EXISTS told_at DATETIME(3) NULL AFTER checked_at;
UPDATE check_results SET told_at = checked_at WHERE told_at IS NULL;
ALTER TABLE check_results MODIFY COLUMN told_at DATETIME(3) NOT NULL;

ALTER TABLE courses CHANGE COLUMN IF EXISTS held_to_since held_anew_at DATETIME(3) NULL;
