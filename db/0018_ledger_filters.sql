-- What the ledger is filtered by: the day of arrival where one stood, and what the visit counts as.
ALTER TABLE visit_figures
  ADD COLUMN IF NOT EXISTS marked VARCHAR(10) CHARACTER SET ascii NULL AFTER left_out,
  ADD COLUMN IF NOT EXISTS arrival_day CHAR(10) CHARACTER SET ascii NULL AFTER marked;
