-- Pairs that somebody put on watch before the visits that are to tell: held to no more evidence than a pair that was asked for beforehand.
CREATE TABLE IF NOT EXISTS watch (
  household_id BINARY(16) NOT NULL,
  id BINARY(16) NOT NULL,
  by_what VARCHAR(12) CHARACTER SET ascii NOT NULL,
  key_a VARCHAR(80) NOT NULL,
  key_b VARCHAR(80) NOT NULL,
  figure VARCHAR(10) CHARACTER SET ascii NOT NULL,
  since DATETIME(3) NOT NULL,
  put_by BINARY(16) NOT NULL,
  ended_at DATETIME(3) NULL,
  PRIMARY KEY (household_id, id),
  KEY watch_open (household_id, ended_at, since),
  CONSTRAINT watch_household FOREIGN KEY (household_id) REFERENCES household (id)
) ENGINE=InnoDB;

-- Comparisons by name.
CREATE TABLE IF NOT EXISTS saved_view (
  household_id BINARY(16) NOT NULL,
  id BINARY(16) NOT NULL,
  name VARCHAR(60) NOT NULL,
  address VARCHAR(1000) NOT NULL,
  saved_by BINARY(16) NOT NULL,
  saved_at DATETIME(3) NOT NULL,
  PRIMARY KEY (household_id, id),
  UNIQUE KEY view_name (household_id, name),
  CONSTRAINT view_household FOREIGN KEY (household_id) REFERENCES household (id)
) ENGINE=InnoDB;

-- Plans of head-to-heads. Their rounds are told in the visits in which they were run.
CREATE TABLE IF NOT EXISTS trial (
  household_id BINARY(16) NOT NULL,
  id BINARY(16) NOT NULL,
  rev BIGINT UNSIGNED NOT NULL,
  archived_at DATETIME(3) NULL,
  name VARCHAR(120) NOT NULL,
  fields JSON NOT NULL DEFAULT '{}',
  field_revs JSON NOT NULL DEFAULT '{}',
  find_words VARCHAR(120) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NULL,
  PRIMARY KEY (household_id, id),
  KEY trial_rev (household_id, rev),
  CONSTRAINT trial_household FOREIGN KEY (household_id) REFERENCES household (id)
) ENGINE=InnoDB;
ALTER TABLE visit_figures ADD COLUMN IF NOT EXISTS trial_id BINARY(16) NULL, ADD KEY IF NOT EXISTS visit_trial (household_id, trial_id);

CREATE OR REPLACE PROCEDURE forget_household(IN hh BINARY(16))
MODIFIES SQL DATA SQL SECURITY DEFINER
BEGIN
  DELETE FROM attempt_figures WHERE household_id = hh;
  DELETE FROM stall_danger WHERE household_id = hh;
  DELETE FROM visit_tape WHERE household_id = hh;
  DELETE FROM visit_figures WHERE household_id = hh;
  DELETE FROM visit WHERE household_id = hh;
  DELETE FROM event WHERE household_id = hh;
  DELETE FROM join_wish WHERE household_id = hh;
  DELETE FROM photo_chunk WHERE household_id = hh;
  DELETE FROM photo WHERE household_id = hh;
  DELETE FROM plan WHERE household_id = hh;
  DELETE FROM trial WHERE household_id = hh;
  DELETE FROM enrolment WHERE household_id = hh;
  DELETE FROM means WHERE household_id = hh;
  DELETE FROM tariff WHERE household_id = hh;
  DELETE FROM stall WHERE household_id = hh;
  DELETE FROM site WHERE household_id = hh;
  DELETE FROM adapter WHERE household_id = hh;
  DELETE FROM car WHERE household_id = hh;
  DELETE FROM provider WHERE household_id = hh;
  DELETE FROM network WHERE household_id = hh;
  DELETE FROM watch WHERE household_id = hh;
  DELETE FROM saved_view WHERE household_id = hh;
  DELETE FROM household_batch WHERE household_id = hh;
  DELETE FROM invitation WHERE household_id = hh;
  DELETE FROM security_log WHERE household_id = hh;
  DELETE FROM signed_in_session WHERE household_id = hh;
  DELETE FROM member WHERE household_id = hh;
  DELETE FROM household WHERE id = hh;
END;
