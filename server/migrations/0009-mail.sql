-- What people are told goes out by mail as well, to who wants it so.

ALTER TABLE messages ADD COLUMN IF NOT EXISTS mailed_at DATETIME(3) NULL COMMENT 'sent by mail, or given up';
ALTER TABLE messages ADD KEY IF NOT EXISTS messages_to_mail (recipient, read_at, mailed_at);
ALTER TABLE people ADD COLUMN IF NOT EXISTS mailed_at DATETIME(3) NULL COMMENT 'when they last got mail';
ALTER TABLE people ADD COLUMN IF NOT EXISTS mail_after DATETIME(3) NULL COMMENT 'not before: being sent now, or to be tried again';
ALTER TABLE people ADD COLUMN IF NOT EXISTS mail_problem VARCHAR(300) NULL COMMENT 'why mail to them was refused for good';
UPDATE messages SET mailed_at = sent_at WHERE mailed_at IS NULL;
