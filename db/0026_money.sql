-- Dated exchange rates, by which alone sums go over currencies.
CREATE TABLE IF NOT EXISTS rate (
  household_id BINARY(16) NOT NULL,
  id BINARY(16) NOT NULL,
  rev BIGINT UNSIGNED NOT NULL,
  archived_at DATETIME(3) NULL,
  currency CHAR(3) CHARACTER SET ascii NOT NULL,
  fields JSON NOT NULL DEFAULT '{}',
  field_revs JSON NOT NULL DEFAULT '{}',
  find_words VARCHAR(120) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NULL,
  PRIMARY KEY (household_id, id),
  KEY rate_rev (household_id, rev),
  CONSTRAINT rate_household FOREIGN KEY (household_id) REFERENCES household (id)
) ENGINE=InnoDB;

-- What charging away from home is held against.
CREATE TABLE IF NOT EXISTS otherprice (
  household_id BINARY(16) NOT NULL,
  id BINARY(16) NOT NULL,
  rev BIGINT UNSIGNED NOT NULL,
  archived_at DATETIME(3) NULL,
  what VARCHAR(10) CHARACTER SET ascii NOT NULL,
  fields JSON NOT NULL DEFAULT '{}',
  field_revs JSON NOT NULL DEFAULT '{}',
  find_words VARCHAR(120) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NULL,
  PRIMARY KEY (household_id, id),
  KEY otherprice_rev (household_id, rev),
  CONSTRAINT otherprice_household FOREIGN KEY (household_id) REFERENCES household (id)
) ENGINE=InnoDB;

-- Whether a bill is that of the price on file, and what of a visit's money waits.
ALTER TABLE visit_figures
  ADD COLUMN IF NOT EXISTS bill_check VARCHAR(8) CHARACTER SET ascii NULL,
  ADD COLUMN IF NOT EXISTS open_money VARCHAR(40) CHARACTER SET ascii NULL;

-- How long an attempt had waited when it was left without an outcome.
ALTER TABLE attempt_figures ADD COLUMN IF NOT EXISTS open_for_s DOUBLE NULL;

-- A month's books as they were when they were closed: what changes later is told as a change to them.
CREATE TABLE IF NOT EXISTS closed_month (
  household_id BINARY(16) NOT NULL,
  month CHAR(7) CHARACTER SET ascii NOT NULL,
  closed_at DATETIME(3) NOT NULL,
  closed_by BINARY(16) NOT NULL,
  book JSON NOT NULL,
  PRIMARY KEY (household_id, month),
  CONSTRAINT closed_household FOREIGN KEY (household_id) REFERENCES household (id)
) ENGINE=InnoDB;

CREATE OR REPLACE PROCEDURE forget_household(IN hh BINARY(16))
MODIFIES SQL DATA SQL SECURITY DEFINER
BEGIN
  DELETE FROM sheet_habit WHERE household_id = hh;
  DELETE FROM api_token_household WHERE household_id = hh;
  DELETE FROM session_power WHERE household_id = hh;
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
  DELETE FROM rate WHERE household_id = hh;
  DELETE FROM otherprice WHERE household_id = hh;
  DELETE FROM closed_month WHERE household_id = hh;
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
