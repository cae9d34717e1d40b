ALTER TABLE runs
  DROP CONSTRAINT runs_kind,
  DROP CONSTRAINT runs_state,
  ADD CONSTRAINT runs_kind CHECK (kind IN ('rollout', 'check', 'renames')),
  ADD CONSTRAINT runs_state CHECK (state IN ('planned', 'running', 'paused', 'done', 'cancelled'))
