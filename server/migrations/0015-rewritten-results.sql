-- What a result says never changes but when somebody named in it leaves: then it is marked, so that whoever kept it reads it anew.
ALTER TABLE check_results ADD COLUMN IF NOT EXISTS rewritten CHAR(36) NULL COMMENT 'another one whenever somebody’s name was taken out' AFTER rest;
