-- What can be found is kept in plain words, as core/records/find-text.ts makes them: no case, no accents, no marks.
ALTER TABLE network ADD COLUMN IF NOT EXISTS find_words VARCHAR(120) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NULL;
ALTER TABLE provider ADD COLUMN IF NOT EXISTS find_words VARCHAR(120) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NULL;
ALTER TABLE site ADD COLUMN IF NOT EXISTS find_words VARCHAR(120) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NULL;
ALTER TABLE stall
  ADD COLUMN IF NOT EXISTS find_words VARCHAR(120) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NULL,
  ADD COLUMN IF NOT EXISTS other_words VARCHAR(120) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NULL;
ALTER TABLE car ADD COLUMN IF NOT EXISTS find_words VARCHAR(120) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NULL;
ALTER TABLE adapter ADD COLUMN IF NOT EXISTS find_words VARCHAR(120) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NULL;
ALTER TABLE means ADD COLUMN IF NOT EXISTS find_words VARCHAR(120) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NULL;
ALTER TABLE plan ADD COLUMN IF NOT EXISTS find_words VARCHAR(120) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NULL;
ALTER TABLE enrolment ADD COLUMN IF NOT EXISTS find_words VARCHAR(120) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NULL;
ALTER TABLE tariff ADD COLUMN IF NOT EXISTS find_words VARCHAR(120) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NULL;
-- The words of a visit's day; its place is found by the site's.
ALTER TABLE visit ADD COLUMN IF NOT EXISTS find_words VARCHAR(100) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL DEFAULT '';
-- Looked through without the rows themselves.
ALTER TABLE visit ADD KEY IF NOT EXISTS visit_found (household_id, withdrawn, sort_at, site_id, find_words);
ALTER TABLE stall ADD KEY IF NOT EXISTS stall_found (household_id, archived_at, site_id, find_words, other_words);
ALTER TABLE site ADD KEY IF NOT EXISTS site_found (household_id, find_words);
