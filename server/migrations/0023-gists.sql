-- What the pictures of the whole college need of findings, kept beside them: it is a tenth as large. Results of before have none
-- until they are made anew; their findings are read instead.
ALTER TABLE check_results ADD COLUMN IF NOT EXISTS gist LONGTEXT NULL COMMENT 'open musts and mends, and the fingerprints of all findings' AFTER findings;
ALTER TABLE check_results ADD COLUMN IF NOT EXISTS gist_form SMALLINT NULL COMMENT 'the form of the gist; one of another form is not read' AFTER gist;
