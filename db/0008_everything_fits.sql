-- What is accepted is shown: every figure that can be derived from accepted events fits its column.
ALTER TABLE visit_figures
  MODIFY COLUMN fault_codes VARCHAR(500) CHARACTER SET utf8mb4 NOT NULL,
  MODIFY COLUMN delivered_kwh DECIMAL(20,3) NULL,
  MODIFY COLUMN paid DECIMAL(24,6) NULL,
  MODIFY COLUMN attempts INT UNSIGNED NOT NULL,
  MODIFY COLUMN failed INT UNSIGNED NOT NULL,
  MODIFY COLUMN faults INT UNSIGNED NOT NULL;
ALTER TABLE attempt_figures
  MODIFY COLUMN kwh DECIMAL(20,3) NULL,
  MODIFY COLUMN n INT UNSIGNED NOT NULL,
  MODIFY COLUMN shows INT UNSIGNED NOT NULL;
