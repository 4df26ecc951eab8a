-- Who may see what: a household, its people, their signed-in sessions, and the attempts that slow a guesser.
CREATE TABLE IF NOT EXISTS household (
  id BINARY(16) NOT NULL PRIMARY KEY,
  name VARCHAR(80) NOT NULL,
  currency CHAR(3) CHARACTER SET ascii NOT NULL,
  zone VARCHAR(64) CHARACTER SET ascii NOT NULL,
  rev BIGINT UNSIGNED NOT NULL DEFAULT 0,
  created_at DATETIME(3) NOT NULL
) ENGINE=InnoDB;

CREATE TABLE IF NOT EXISTS person (
  id BINARY(16) NOT NULL PRIMARY KEY,
  household_id BINARY(16) NOT NULL,
  email VARCHAR(190) NOT NULL,
  name VARCHAR(80) NOT NULL,
  password_hash VARCHAR(255) CHARACTER SET ascii NOT NULL,
  created_at DATETIME(3) NOT NULL,
  UNIQUE KEY person_email (email),
  KEY person_household (household_id),
  CONSTRAINT person_of_household FOREIGN KEY (household_id) REFERENCES household (id)
) ENGINE=InnoDB;

-- The cookie holds a random id; only its SHA-256 is kept, so that a copy of the table opens nothing.
CREATE TABLE IF NOT EXISTS signed_in_session (
  id_hash BINARY(32) NOT NULL PRIMARY KEY,
  household_id BINARY(16) NOT NULL,
  person_id BINARY(16) NOT NULL,
  created_at DATETIME(3) NOT NULL,
  expires_at DATETIME(3) NOT NULL,
  ended_at DATETIME(3) NULL,
  KEY session_person (person_id),
  CONSTRAINT session_of_person FOREIGN KEY (person_id) REFERENCES person (id)
) ENGINE=InnoDB;

CREATE TABLE IF NOT EXISTS sign_in_failure (
  id BINARY(16) NOT NULL PRIMARY KEY,
  address VARCHAR(64) CHARACTER SET ascii NOT NULL,
  account_hash BINARY(32) NOT NULL,
  at DATETIME(3) NOT NULL,
  KEY failure_address (address, at),
  KEY failure_account (account_hash, at)
) ENGINE=InnoDB;
