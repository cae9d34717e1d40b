ALTER TABLE deployments ADD COLUMN proof LONGTEXT NULL COMMENT 'the course read again, held against the plan'
