-- Tries at a door, counted before they are checked: one row a door and key, one statement a try.
CREATE TABLE IF NOT EXISTS door_try (
  door VARCHAR(16) CHARACTER SET ascii NOT NULL,
  key_hash BINARY(32) NOT NULL,
  since DATETIME(3) NOT NULL,
  tries INT UNSIGNED NOT NULL,
  PRIMARY KEY (door, key_hash),
  KEY try_since (since)
) ENGINE=InnoDB;
DROP TABLE IF EXISTS sign_in_failure;

-- A device that its person signed in on before: strangers' tries never slow it.
CREATE TABLE IF NOT EXISTS known_device (
  id_hash BINARY(32) NOT NULL,
  person_id BINARY(16) NOT NULL,
  last_at DATETIME(3) NOT NULL,
  PRIMARY KEY (id_hash, person_id),
  CONSTRAINT device_of_person FOREIGN KEY (person_id) REFERENCES person (id)
) ENGINE=InnoDB;

-- A session has a name to be ended by, and says where and when it was last used.
ALTER TABLE signed_in_session
  ADD COLUMN IF NOT EXISTS id BINARY(16) NULL,
  ADD COLUMN IF NOT EXISTS last_seen_at DATETIME(3) NULL,
  ADD COLUMN IF NOT EXISTS device VARCHAR(80) NOT NULL DEFAULT '';
-- Those from before are signed in anew: they have neither name nor limits.
DELETE FROM signed_in_session WHERE id IS NULL;

-- Printed by its person, kept here as a hash only: opens the account when the password is lost.
ALTER TABLE person
  ADD COLUMN IF NOT EXISTS recovery_hash VARCHAR(255) CHARACTER SET ascii NULL,
  ADD COLUMN IF NOT EXISTS recovery_made_at DATETIME(3) NULL,
  ADD COLUMN IF NOT EXISTS password_changed_at DATETIME(3) NULL;

-- What happened at the doors, by ids alone. Append-only.
CREATE TABLE IF NOT EXISTS security_log (
  id BINARY(16) NOT NULL PRIMARY KEY,
  household_id BINARY(16) NULL,
  person_id BINARY(16) NULL,
  session_id BINARY(16) NULL,
  at DATETIME(3) NOT NULL,
  kind VARCHAR(24) CHARACTER SET ascii NOT NULL,
  reference VARCHAR(40) CHARACTER SET ascii NULL,
  KEY log_household (household_id, at)
) ENGINE=InnoDB;
