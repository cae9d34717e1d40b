ALTER TABLE runs
  ADD COLUMN rollout_order LONGTEXT NULL,
  DROP CONSTRAINT runs_state,
  ADD CONSTRAINT runs_state CHECK (state IN ('planning', 'planned', 'running', 'paused', 'done', 'cancelled'))
