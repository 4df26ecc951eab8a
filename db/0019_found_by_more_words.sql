-- A visit is found by its day, its code and what went wrong there.
ALTER TABLE visit MODIFY COLUMN find_words VARCHAR(240) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL DEFAULT '';
