-- Places and garage in full. What SQL joins and sorts by stays a column; everything else of a record is in `details`,
-- whose shape is the record's schema.
ALTER TABLE network ADD COLUMN IF NOT EXISTS details JSON NOT NULL DEFAULT '{}';
ALTER TABLE site ADD COLUMN IF NOT EXISTS details JSON NOT NULL DEFAULT '{}';
ALTER TABLE stall ADD COLUMN IF NOT EXISTS details JSON NOT NULL DEFAULT '{}', ADD COLUMN IF NOT EXISTS most_kw DECIMAL(7,1) NULL;
ALTER TABLE car ADD COLUMN IF NOT EXISTS details JSON NOT NULL DEFAULT '{}';

-- A stall has several connectors, a car several inlets: the one there was becomes the first.
-- most_kw: the greatest of its plates, written with the record so that lists can be sorted by it.
UPDATE stall SET most_kw = rated_kw, details = JSON_OBJECT('outlets', JSON_ARRAY(JSON_OBJECT('connector', connector, 'ratedKW', rated_kw + 0.0)))
  WHERE details = '{}';
UPDATE car SET details = JSON_OBJECT('connectors', JSON_ARRAY(connector), 'usableKWh', usable_kwh + 0.0)
  WHERE details = '{}';

CREATE TABLE IF NOT EXISTS provider (
  household_id BINARY(16) NOT NULL,
  id BINARY(16) NOT NULL,
  rev BIGINT UNSIGNED NOT NULL,
  archived_at DATETIME(3) NULL,
  name VARCHAR(80) NOT NULL,
  details JSON NOT NULL DEFAULT '{}',
  PRIMARY KEY (household_id, id),
  KEY provider_rev (household_id, rev)
) ENGINE=InnoDB;

CREATE TABLE IF NOT EXISTS adapter (
  household_id BINARY(16) NOT NULL,
  id BINARY(16) NOT NULL,
  rev BIGINT UNSIGNED NOT NULL,
  archived_at DATETIME(3) NULL,
  name VARCHAR(80) NOT NULL,
  details JSON NOT NULL DEFAULT '{}',
  PRIMARY KEY (household_id, id),
  KEY adapter_rev (household_id, rev)
) ENGINE=InnoDB;

ALTER TABLE means
  ADD COLUMN IF NOT EXISTS provider_id BINARY(16) NULL,
  ADD COLUMN IF NOT EXISTS network_id BINARY(16) NULL,
  ADD COLUMN IF NOT EXISTS details JSON NOT NULL DEFAULT '{}';
ALTER TABLE means ADD CONSTRAINT means_of_provider FOREIGN KEY IF NOT EXISTS means_of_provider (household_id, provider_id) REFERENCES provider (household_id, id);
ALTER TABLE means ADD CONSTRAINT means_of_network FOREIGN KEY IF NOT EXISTS means_of_network (household_id, network_id) REFERENCES network (household_id, id);

CREATE TABLE IF NOT EXISTS plan (
  household_id BINARY(16) NOT NULL,
  id BINARY(16) NOT NULL,
  rev BIGINT UNSIGNED NOT NULL,
  archived_at DATETIME(3) NULL,
  name VARCHAR(80) NOT NULL,
  provider_id BINARY(16) NULL,
  network_id BINARY(16) NULL,
  details JSON NOT NULL DEFAULT '{}',
  PRIMARY KEY (household_id, id),
  KEY plan_rev (household_id, rev),
  CONSTRAINT plan_of_provider FOREIGN KEY (household_id, provider_id) REFERENCES provider (household_id, id),
  CONSTRAINT plan_of_network FOREIGN KEY (household_id, network_id) REFERENCES network (household_id, id)
) ENGINE=InnoDB;

CREATE TABLE IF NOT EXISTS enrolment (
  household_id BINARY(16) NOT NULL,
  id BINARY(16) NOT NULL,
  rev BIGINT UNSIGNED NOT NULL,
  archived_at DATETIME(3) NULL,
  kind VARCHAR(24) CHARACTER SET ascii NOT NULL,
  car_id BINARY(16) NOT NULL,
  network_id BINARY(16) NOT NULL,
  provider_id BINARY(16) NULL,
  details JSON NOT NULL DEFAULT '{}',
  PRIMARY KEY (household_id, id),
  KEY enrolment_rev (household_id, rev),
  CONSTRAINT enrolment_of_car FOREIGN KEY (household_id, car_id) REFERENCES car (household_id, id),
  CONSTRAINT enrolment_at_network FOREIGN KEY (household_id, network_id) REFERENCES network (household_id, id),
  CONSTRAINT enrolment_by_provider FOREIGN KEY (household_id, provider_id) REFERENCES provider (household_id, id)
) ENGINE=InnoDB;

-- What happened lately at a stall, and how often a thing was used.
CREATE INDEX IF NOT EXISTS attempt_stall ON attempt_figures (household_id, stall_id);
CREATE INDEX IF NOT EXISTS attempt_means ON attempt_figures (household_id, means_id);
CREATE INDEX IF NOT EXISTS attempt_adapter ON attempt_figures (household_id, adapter_id);
CREATE INDEX IF NOT EXISTS visit_site_time ON visit (household_id, site_id, withdrawn, sort_at);

-- Photos by the SHA-256 of what was sent, in chunks of at most 512 kB.
CREATE TABLE IF NOT EXISTS photo (
  household_id BINARY(16) NOT NULL,
  sha256 BINARY(32) NOT NULL,
  person_id BINARY(16) NOT NULL,
  width SMALLINT UNSIGNED NOT NULL,
  height SMALLINT UNSIGNED NOT NULL,
  bytes INT UNSIGNED NOT NULL,
  kept_at DATETIME(3) NOT NULL,
  PRIMARY KEY (household_id, sha256)
) ENGINE=InnoDB;

CREATE TABLE IF NOT EXISTS photo_chunk (
  household_id BINARY(16) NOT NULL,
  sha256 BINARY(32) NOT NULL,
  n SMALLINT UNSIGNED NOT NULL,
  bytes MEDIUMBLOB NOT NULL,
  PRIMARY KEY (household_id, sha256, n),
  CONSTRAINT chunk_of_photo FOREIGN KEY (household_id, sha256) REFERENCES photo (household_id, sha256)
) ENGINE=InnoDB;
