-- Who belongs to a household, and as what. An account may belong to several; `person.household_id` is the one it was in last.
CREATE TABLE IF NOT EXISTS member (
  household_id BINARY(16) NOT NULL,
  person_id BINARY(16) NOT NULL,
  role VARCHAR(10) CHARACTER SET ascii NOT NULL,
  since DATETIME(3) NOT NULL,
  left_at DATETIME(3) NULL,
  PRIMARY KEY (household_id, person_id),
  KEY member_person (person_id, left_at),
  CONSTRAINT member_household FOREIGN KEY (household_id) REFERENCES household (id),
  CONSTRAINT member_of_person FOREIGN KEY (person_id) REFERENCES person (id)
) ENGINE=InnoDB;
INSERT IGNORE INTO member (household_id, person_id, role, since) SELECT household_id, id, 'owner', created_at FROM person;

-- A way in, for one person, once; only the hash of its code is kept.
CREATE TABLE IF NOT EXISTS invitation (
  id BINARY(16) NOT NULL PRIMARY KEY,
  household_id BINARY(16) NOT NULL,
  role VARCHAR(10) CHARACTER SET ascii NOT NULL,
  code_hash BINARY(32) NOT NULL,
  made_by BINARY(16) NOT NULL,
  made_at DATETIME(3) NOT NULL,
  expires_at DATETIME(3) NOT NULL,
  used_at DATETIME(3) NULL,
  used_by BINARY(16) NULL,
  ended_at DATETIME(3) NULL,
  UNIQUE KEY invitation_code (code_hash),
  KEY invitation_household (household_id, expires_at),
  CONSTRAINT invitation_to FOREIGN KEY (household_id) REFERENCES household (id)
) ENGINE=InnoDB;

-- A recording that was begun without a network as one of a visit that another phone records: joined when both are here.
CREATE TABLE IF NOT EXISTS join_wish (
  household_id BINARY(16) NOT NULL,
  visit_id BINARY(16) NOT NULL,
  code BINARY(4) NOT NULL,
  at DATETIME(3) NOT NULL,
  PRIMARY KEY (household_id, visit_id),
  KEY wish_code (household_id, code)
) ENGINE=InnoDB;

-- Nowhere, once the account is deleted.
ALTER TABLE person MODIFY COLUMN household_id BINARY(16) NULL;
-- How much looks wrong about a visit.
ALTER TABLE visit_figures ADD COLUMN IF NOT EXISTS flags SMALLINT UNSIGNED NOT NULL DEFAULT 0;
-- A visit is found by its notes too.
ALTER TABLE visit MODIFY COLUMN find_words VARCHAR(480) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL DEFAULT '';
-- Who drove, and to whom alone a visit shows more than that the car was charged.
ALTER TABLE visit ADD COLUMN IF NOT EXISTS driver_id BINARY(16) NULL, ADD COLUMN IF NOT EXISTS private_to BINARY(16) NULL;
-- A person who deleted the account: the name is gone, what they recorded stays.
ALTER TABLE person
  ADD COLUMN IF NOT EXISTS deleted_at DATETIME(3) NULL,
  ADD COLUMN IF NOT EXISTS wishes JSON NULL;

-- The only way in which the application deletes what it otherwise may only add to: a household whole.
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
  DELETE FROM enrolment WHERE household_id = hh;
  DELETE FROM means WHERE household_id = hh;
  DELETE FROM tariff WHERE household_id = hh;
  DELETE FROM stall WHERE household_id = hh;
  DELETE FROM site WHERE household_id = hh;
  DELETE FROM adapter WHERE household_id = hh;
  DELETE FROM car WHERE household_id = hh;
  DELETE FROM provider WHERE household_id = hh;
  DELETE FROM network WHERE household_id = hh;
  DELETE FROM household_batch WHERE household_id = hh;
  DELETE FROM invitation WHERE household_id = hh;
  DELETE FROM security_log WHERE household_id = hh;
  DELETE FROM signed_in_session WHERE household_id = hh;
  DELETE FROM member WHERE household_id = hh;
  DELETE FROM household WHERE id = hh;
END;
