-- How long a visit charged in all, and where: with what it delivered, the power that a site gave, without each visit being looked up for it.
ALTER TABLE visit_figures ADD COLUMN IF NOT EXISTS charging_s DOUBLE NULL, ADD COLUMN IF NOT EXISTS site_id BINARY(16) NULL;
