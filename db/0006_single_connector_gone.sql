-- What 0005 moved into details. A file of its own, so that 0005 can be run again after a crash.
ALTER TABLE stall DROP COLUMN IF EXISTS connector, DROP COLUMN IF EXISTS rated_kw;
ALTER TABLE car DROP COLUMN IF EXISTS connector, DROP COLUMN IF EXISTS usable_kwh;
