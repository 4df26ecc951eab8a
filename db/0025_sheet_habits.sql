-- What somebody said of a spreadsheet's columns and marks, by its headings: said once, not asked again.
CREATE TABLE IF NOT EXISTS sheet_habit (
  household_id BINARY(16) NOT NULL,
  headings_hash BINARY(32) NOT NULL,
  answers JSON NOT NULL,
  said_at DATETIME(3) NOT NULL,
  PRIMARY KEY (household_id, headings_hash),
  CONSTRAINT habit_household FOREIGN KEY (household_id) REFERENCES household (id)
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
