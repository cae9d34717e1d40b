ALTER TABLE courses
  ADD COLUMN brought LONGTEXT NULL,
  ADD COLUMN strengths_version INT NULL,
  ADD COLUMN room VARCHAR(100) NULL,
  ADD COLUMN answers LONGTEXT NULL,
  ADD COLUMN merged_into BIGINT NULL,
  ADD COLUMN base_revision INT NOT NULL DEFAULT 0,
  ADD CONSTRAINT courses_merged_into FOREIGN KEY (merged_into) REFERENCES courses (id)
