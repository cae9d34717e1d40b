-- Sets of images stand in the library beside the images.

ALTER TABLE library_entries
  DROP CONSTRAINT IF EXISTS library_entries_kind,
  ADD CONSTRAINT library_entries_kind
    CHECK (kind IN ('house-text', 'image', 'file', 'rubric', 'block', 'image-set'));
