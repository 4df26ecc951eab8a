-- Records: what a household keeps of networks, sites, stalls, cars, means and prices.
-- `rev` is the household's rev at the last write; nothing is deleted, only archived.
CREATE TABLE IF NOT EXISTS network (
  household_id BINARY(16) NOT NULL,
  id BINARY(16) NOT NULL,
  rev BIGINT UNSIGNED NOT NULL,
  archived_at DATETIME(3) NULL,
  name VARCHAR(80) NOT NULL,
  PRIMARY KEY (household_id, id),
  KEY network_rev (household_id, rev)
) ENGINE=InnoDB;

CREATE TABLE IF NOT EXISTS site (
  household_id BINARY(16) NOT NULL,
  id BINARY(16) NOT NULL,
  rev BIGINT UNSIGNED NOT NULL,
  archived_at DATETIME(3) NULL,
  network_id BINARY(16) NOT NULL,
  name VARCHAR(80) NOT NULL,
  zone VARCHAR(64) CHARACTER SET ascii NOT NULL,
  latitude DECIMAL(8,5) NULL,
  longitude DECIMAL(8,5) NULL,
  PRIMARY KEY (household_id, id),
  KEY site_rev (household_id, rev),
  CONSTRAINT site_of_network FOREIGN KEY (household_id, network_id) REFERENCES network (household_id, id)
) ENGINE=InnoDB;

CREATE TABLE IF NOT EXISTS stall (
  household_id BINARY(16) NOT NULL,
  id BINARY(16) NOT NULL,
  rev BIGINT UNSIGNED NOT NULL,
  archived_at DATETIME(3) NULL,
  site_id BINARY(16) NOT NULL,
  name VARCHAR(40) NOT NULL,
  connector VARCHAR(16) NOT NULL,
  rated_kw DECIMAL(7,1) NOT NULL,
  PRIMARY KEY (household_id, id),
  KEY stall_rev (household_id, rev),
  KEY stall_site (household_id, site_id),
  CONSTRAINT stall_of_site FOREIGN KEY (household_id, site_id) REFERENCES site (household_id, id)
) ENGINE=InnoDB;

CREATE TABLE IF NOT EXISTS car (
  household_id BINARY(16) NOT NULL,
  id BINARY(16) NOT NULL,
  rev BIGINT UNSIGNED NOT NULL,
  archived_at DATETIME(3) NULL,
  name VARCHAR(80) NOT NULL,
  usable_kwh DECIMAL(6,1) NOT NULL,
  connector VARCHAR(16) NOT NULL,
  PRIMARY KEY (household_id, id),
  KEY car_rev (household_id, rev)
) ENGINE=InnoDB;

CREATE TABLE IF NOT EXISTS means (
  household_id BINARY(16) NOT NULL,
  id BINARY(16) NOT NULL,
  rev BIGINT UNSIGNED NOT NULL,
  archived_at DATETIME(3) NULL,
  kind VARCHAR(24) CHARACTER SET ascii NOT NULL,
  label VARCHAR(80) NOT NULL,
  PRIMARY KEY (household_id, id),
  KEY means_rev (household_id, rev)
) ENGINE=InnoDB;

CREATE TABLE IF NOT EXISTS tariff (
  household_id BINARY(16) NOT NULL,
  id BINARY(16) NOT NULL,
  rev BIGINT UNSIGNED NOT NULL,
  archived_at DATETIME(3) NULL,
  network_id BINARY(16) NOT NULL,
  currency CHAR(3) CHARACTER SET ascii NOT NULL,
  per_kwh DECIMAL(12,6) NOT NULL,
  start_fee DECIMAL(12,6) NOT NULL,
  valid_from DATE NOT NULL,
  PRIMARY KEY (household_id, id),
  KEY tariff_rev (household_id, rev),
  CONSTRAINT tariff_of_network FOREIGN KEY (household_id, network_id) REFERENCES network (household_id, id)
) ENGINE=InnoDB;
