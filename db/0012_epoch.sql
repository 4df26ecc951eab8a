-- A restore opens a new epoch: what phones sent after the backup is asked for again. `epoch_rev`: the rev the backup had.
ALTER TABLE household
  ADD COLUMN IF NOT EXISTS epoch BINARY(16) NULL,
  ADD COLUMN IF NOT EXISTS epoch_rev BIGINT UNSIGNED NOT NULL DEFAULT 0;
