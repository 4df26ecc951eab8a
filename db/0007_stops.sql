-- Visits that belong together: what pulling out of one site said of the visit that goes on at another.
ALTER TABLE visit ADD COLUMN IF NOT EXISTS linked_visit BINARY(16) NULL, ADD KEY IF NOT EXISTS visit_linked (household_id, linked_visit);
