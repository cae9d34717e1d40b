-- How the platform wants the first name of whoever reads a page; null: it puts none in, or has not said.

ALTER TABLE platform_feed ADD COLUMN IF NOT EXISTS reader_name VARCHAR(60) NULL;
