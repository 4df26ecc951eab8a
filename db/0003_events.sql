-- The record. Append-only: the application's user may insert and select here and nothing else.
-- No foreign key from event to event or to a record: what arrives early waits.
CREATE TABLE IF NOT EXISTS event (
  household_id BINARY(16) NOT NULL,
  id BINARY(16) NOT NULL,
  visit_id BINARY(16) NOT NULL,
  person_id BINARY(16) NOT NULL,
  kind VARCHAR(32) CHARACTER SET ascii NOT NULL,
  v SMALLINT UNSIGNED NOT NULL,
  at DATETIME(3) NOT NULL,
  at_precision VARCHAR(4) CHARACTER SET ascii NOT NULL,
  zone VARCHAR(64) CHARACTER SET ascii NOT NULL,
  device_id BINARY(16) NOT NULL,
  life BINARY(16) NOT NULL,
  mono DOUBLE NOT NULL,
  awake BOOLEAN NOT NULL,
  seq INT UNSIGNED NOT NULL,
  origin VARCHAR(10) CHARACTER SET ascii NOT NULL,
  role VARCHAR(10) CHARACTER SET ascii NOT NULL,
  payload JSON NOT NULL,
  content_hash BINARY(32) NOT NULL,
  received_at DATETIME(3) NOT NULL,
  sent_at DATETIME(3) NULL,
  import_id BINARY(16) NULL,
  PRIMARY KEY (household_id, id),
  KEY event_visit (household_id, visit_id)
) ENGINE=InnoDB;

-- One row a visit, arisen from its first event: a projection, brought up to date from its events.
CREATE TABLE IF NOT EXISTS visit (
  household_id BINARY(16) NOT NULL,
  id BINARY(16) NOT NULL,
  rev BIGINT UNSIGNED NOT NULL,
  figures_rev BIGINT UNSIGNED NOT NULL DEFAULT 0,
  definition_version SMALLINT UNSIGNED NOT NULL DEFAULT 0,
  person_id BINARY(16) NOT NULL,
  zone VARCHAR(64) CHARACTER SET ascii NOT NULL DEFAULT 'UTC',
  sort_at DATETIME(3) NOT NULL,
  pulled_in_at DATETIME(3) NULL,
  pulled_out_at DATETIME(3) NULL,
  last_event_at DATETIME(3) NULL,
  local_month CHAR(7) CHARACTER SET ascii NOT NULL DEFAULT '',
  site_id BINARY(16) NULL,
  network_id BINARY(16) NULL,
  car_id BINARY(16) NULL,
  withdrawn BOOLEAN NOT NULL DEFAULT FALSE,
  newer BOOLEAN NOT NULL DEFAULT FALSE,
  PRIMARY KEY (household_id, id),
  KEY visit_time (household_id, withdrawn, sort_at, id),
  KEY visit_network (household_id, withdrawn, network_id, sort_at),
  KEY visit_site (household_id, site_id),
  KEY visit_stale (household_id, definition_version, figures_rev)
) ENGINE=InnoDB;
