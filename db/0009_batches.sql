-- One row a writing transaction of a household: what it wrote, each item by its hash, chained to the row before.
-- Append-only, as the record itself. bin/check recomputes it.
CREATE TABLE IF NOT EXISTS household_batch (
  household_id BINARY(16) NOT NULL,
  rev BIGINT UNSIGNED NOT NULL,
  person_id BINARY(16) NOT NULL,
  at DATETIME(3) NOT NULL,
  items LONGTEXT CHARACTER SET ascii NOT NULL,
  hash BINARY(32) NOT NULL,
  PRIMARY KEY (household_id, rev)
) ENGINE=InnoDB;
