-- What a record says stands in its fields alone, and in the columns that SQL needs.
ALTER TABLE network DROP COLUMN IF EXISTS details;
ALTER TABLE provider DROP COLUMN IF EXISTS details;
ALTER TABLE site DROP COLUMN IF EXISTS details;
ALTER TABLE stall DROP COLUMN IF EXISTS details;
ALTER TABLE car DROP COLUMN IF EXISTS details;
ALTER TABLE adapter DROP COLUMN IF EXISTS details;
ALTER TABLE means DROP COLUMN IF EXISTS details;
ALTER TABLE plan DROP COLUMN IF EXISTS details;
ALTER TABLE enrolment DROP COLUMN IF EXISTS details;
ALTER TABLE tariff DROP COLUMN IF EXISTS currency, DROP COLUMN IF EXISTS per_kwh, DROP COLUMN IF EXISTS start_fee, DROP COLUMN IF EXISTS valid_from;
