-- Tokens of a person's own programs. Only the hash of one is kept; what it may and where is fixed when it is made.
CREATE TABLE IF NOT EXISTS api_token (
  id BINARY(16) NOT NULL PRIMARY KEY,
  person_id BINARY(16) NOT NULL,
  name VARCHAR(60) NOT NULL,
  token_hash BINARY(32) NOT NULL,
  may_write BOOLEAN NOT NULL,
  made_at DATETIME(3) NOT NULL,
  last_used_at DATETIME(3) NULL,
  ended_at DATETIME(3) NULL,
  UNIQUE KEY token_hash (token_hash),
  KEY token_person (person_id, ended_at),
  CONSTRAINT token_of_person FOREIGN KEY (person_id) REFERENCES person (id)
) ENGINE=InnoDB;

CREATE TABLE IF NOT EXISTS api_token_household (
  token_id BINARY(16) NOT NULL,
  household_id BINARY(16) NOT NULL,
  PRIMARY KEY (token_id, household_id),
  CONSTRAINT token_household_token FOREIGN KEY (token_id) REFERENCES api_token (id) ON DELETE CASCADE,
  CONSTRAINT token_household_household FOREIGN KEY (household_id) REFERENCES household (id)
) ENGINE=InnoDB;

CREATE OR REPLACE PROCEDURE forget_household(IN hh BINARY(16))
MODIFIES SQL DATA SQL SECURITY DEFINER
BEGIN
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
