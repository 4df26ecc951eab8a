-- Dangers that a visit reported at a stall and nobody has cleared since. Derived, with its figures.
CREATE TABLE IF NOT EXISTS stall_danger (
  household_id BINARY(16) NOT NULL,
  visit_id BINARY(16) NOT NULL,
  stall_id BINARY(16) NOT NULL,
  danger VARCHAR(8) CHARACTER SET ascii NOT NULL,
  on_day CHAR(10) CHARACTER SET ascii NOT NULL,
  PRIMARY KEY (household_id, visit_id, stall_id, danger)
) ENGINE=InnoDB;
