-- Files stand in the library beside house texts, images, rubrics and blocks.

ALTER TABLE library_entries
  DROP CONSTRAINT IF EXISTS library_entries_kind,
  ADD CONSTRAINT library_entries_kind
    CHECK (kind IN ('house-text', 'image', 'file', 'rubric', 'block'));
