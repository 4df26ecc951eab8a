-- Figures have the columns that something reads; the tape of a list row lies apart from what is counted. All of it is derived anew.
ALTER TABLE visit_figures
  DROP COLUMN IF EXISTS rev,
  DROP COLUMN IF EXISTS definition_version,
  DROP COLUMN IF EXISTS inputs_hash,
  DROP COLUMN IF EXISTS charging_s,
  DROP COLUMN IF EXISTS idle_s,
  DROP COLUMN IF EXISTS queue_s,
  DROP COLUMN IF EXISTS visit_s,
  DROP COLUMN IF EXISTS average_kw,
  DROP COLUMN IF EXISTS peak_kw,
  DROP COLUMN IF EXISTS soc_from,
  DROP COLUMN IF EXISTS soc_to,
  DROP COLUMN IF EXISTS tape,
  ADD COLUMN IF NOT EXISTS first_side VARCHAR(10) CHARACTER SET ascii NULL AFTER first_try,
  ADD COLUMN IF NOT EXISTS left_out BOOLEAN NOT NULL DEFAULT FALSE AFTER left_reason,
  ADD COLUMN IF NOT EXISTS delivered_least DECIMAL(20,3) NULL AFTER delivered_kwh;
ALTER TABLE attempt_figures
  DROP COLUMN IF EXISTS rev,
  DROP COLUMN IF EXISTS definition_version,
  DROP COLUMN IF EXISTS connector,
  DROP COLUMN IF EXISTS reason,
  DROP COLUMN IF EXISTS side,
  DROP COLUMN IF EXISTS shows,
  DROP COLUMN IF EXISTS handshake_pm_s,
  DROP COLUMN IF EXISTS authorisation_s,
  DROP COLUMN IF EXISTS plug_card_gap_s,
  DROP COLUMN IF EXISTS charging_s,
  DROP COLUMN IF EXISTS kwh;
CREATE TABLE IF NOT EXISTS visit_tape (
  household_id BINARY(16) NOT NULL,
  visit_id BINARY(16) NOT NULL,
  tape JSON NOT NULL,
  PRIMARY KEY (household_id, visit_id)
) ENGINE=InnoDB;
-- What is out of date is found without reading the rest.
ALTER TABLE visit ADD KEY IF NOT EXISTS visit_stale (household_id, stale, sort_at), ADD KEY IF NOT EXISTS visit_version (household_id, definition_version, sort_at);
