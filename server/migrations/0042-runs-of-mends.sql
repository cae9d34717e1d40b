ALTER TABLE runs
  DROP CONSTRAINT runs_kind,
  ADD CONSTRAINT runs_kind CHECK (kind IN ('rollout', 'check', 'renames', 'mends'))
