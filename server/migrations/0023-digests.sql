-- What the pictures of the whole college need of findings, kept beside them: it is a tenth as large. Results of before have none
-- until they are made anew; their findings are read instead.
ALTER TABLE check_results ADD COLUMN IF NOT EXISTS digest LONGTEXT NULL COMMENT 'open musts and mends, and the fingerprints of all findings' AFTER findings;
