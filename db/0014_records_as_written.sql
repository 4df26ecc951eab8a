-- A record is kept as it was written: its fields in one text, with the rev in which each was last changed. Columns beside it are
-- what SQL joins, sorts and refers to, written from the same text.
ALTER TABLE network ADD COLUMN IF NOT EXISTS fields JSON NOT NULL DEFAULT '{}', ADD COLUMN IF NOT EXISTS field_revs JSON NOT NULL DEFAULT '{}';
ALTER TABLE provider ADD COLUMN IF NOT EXISTS fields JSON NOT NULL DEFAULT '{}', ADD COLUMN IF NOT EXISTS field_revs JSON NOT NULL DEFAULT '{}';
ALTER TABLE site ADD COLUMN IF NOT EXISTS fields JSON NOT NULL DEFAULT '{}', ADD COLUMN IF NOT EXISTS field_revs JSON NOT NULL DEFAULT '{}';
ALTER TABLE stall ADD COLUMN IF NOT EXISTS fields JSON NOT NULL DEFAULT '{}', ADD COLUMN IF NOT EXISTS field_revs JSON NOT NULL DEFAULT '{}', ADD COLUMN IF NOT EXISTS other_name VARCHAR(40) NULL;
ALTER TABLE car ADD COLUMN IF NOT EXISTS fields JSON NOT NULL DEFAULT '{}', ADD COLUMN IF NOT EXISTS field_revs JSON NOT NULL DEFAULT '{}';
ALTER TABLE adapter ADD COLUMN IF NOT EXISTS fields JSON NOT NULL DEFAULT '{}', ADD COLUMN IF NOT EXISTS field_revs JSON NOT NULL DEFAULT '{}';
ALTER TABLE means ADD COLUMN IF NOT EXISTS fields JSON NOT NULL DEFAULT '{}', ADD COLUMN IF NOT EXISTS field_revs JSON NOT NULL DEFAULT '{}';
ALTER TABLE plan ADD COLUMN IF NOT EXISTS fields JSON NOT NULL DEFAULT '{}', ADD COLUMN IF NOT EXISTS field_revs JSON NOT NULL DEFAULT '{}';
ALTER TABLE enrolment ADD COLUMN IF NOT EXISTS fields JSON NOT NULL DEFAULT '{}', ADD COLUMN IF NOT EXISTS field_revs JSON NOT NULL DEFAULT '{}';
ALTER TABLE tariff
  ADD COLUMN IF NOT EXISTS fields JSON NOT NULL DEFAULT '{}',
  ADD COLUMN IF NOT EXISTS field_revs JSON NOT NULL DEFAULT '{}',
  ADD COLUMN IF NOT EXISTS site_id BINARY(16) NULL;

UPDATE network SET fields = JSON_MERGE_PATCH(details, JSON_OBJECT('name', name)), field_revs = JSON_OBJECT('*', rev) WHERE fields = '{}';
UPDATE provider SET fields = JSON_MERGE_PATCH(details, JSON_OBJECT('name', name)), field_revs = JSON_OBJECT('*', rev) WHERE fields = '{}';
UPDATE site SET fields = JSON_MERGE_PATCH(details, JSON_OBJECT('name', name, 'zone', zone, 'latitude', latitude, 'longitude', longitude,
    'networkId', LOWER(CONCAT_WS('-', SUBSTR(HEX(network_id), 1, 8), SUBSTR(HEX(network_id), 9, 4), SUBSTR(HEX(network_id), 13, 4), SUBSTR(HEX(network_id), 17, 4), SUBSTR(HEX(network_id), 21))))),
  field_revs = JSON_OBJECT('*', rev) WHERE fields = '{}';
UPDATE stall SET fields = JSON_MERGE_PATCH(details, JSON_OBJECT('name', name,
    'siteId', LOWER(CONCAT_WS('-', SUBSTR(HEX(site_id), 1, 8), SUBSTR(HEX(site_id), 9, 4), SUBSTR(HEX(site_id), 13, 4), SUBSTR(HEX(site_id), 17, 4), SUBSTR(HEX(site_id), 21))))),
  other_name = JSON_VALUE(details, '$.otherName'), field_revs = JSON_OBJECT('*', rev) WHERE fields = '{}';
UPDATE car SET fields = JSON_MERGE_PATCH(details, JSON_OBJECT('name', name)), field_revs = JSON_OBJECT('*', rev) WHERE fields = '{}';
UPDATE adapter SET fields = JSON_MERGE_PATCH(details, JSON_OBJECT('name', name)), field_revs = JSON_OBJECT('*', rev) WHERE fields = '{}';
UPDATE means SET fields = JSON_MERGE_PATCH(details, JSON_OBJECT('kind', kind, 'label', label,
    'providerId', IF(provider_id IS NULL, NULL, LOWER(CONCAT_WS('-', SUBSTR(HEX(provider_id), 1, 8), SUBSTR(HEX(provider_id), 9, 4), SUBSTR(HEX(provider_id), 13, 4), SUBSTR(HEX(provider_id), 17, 4), SUBSTR(HEX(provider_id), 21)))),
    'networkId', IF(network_id IS NULL, NULL, LOWER(CONCAT_WS('-', SUBSTR(HEX(network_id), 1, 8), SUBSTR(HEX(network_id), 9, 4), SUBSTR(HEX(network_id), 13, 4), SUBSTR(HEX(network_id), 17, 4), SUBSTR(HEX(network_id), 21)))))),
  field_revs = JSON_OBJECT('*', rev) WHERE fields = '{}';
UPDATE plan SET fields = JSON_MERGE_PATCH(details, JSON_OBJECT('name', name,
    'providerId', IF(provider_id IS NULL, NULL, LOWER(CONCAT_WS('-', SUBSTR(HEX(provider_id), 1, 8), SUBSTR(HEX(provider_id), 9, 4), SUBSTR(HEX(provider_id), 13, 4), SUBSTR(HEX(provider_id), 17, 4), SUBSTR(HEX(provider_id), 21)))),
    'networkId', IF(network_id IS NULL, NULL, LOWER(CONCAT_WS('-', SUBSTR(HEX(network_id), 1, 8), SUBSTR(HEX(network_id), 9, 4), SUBSTR(HEX(network_id), 13, 4), SUBSTR(HEX(network_id), 17, 4), SUBSTR(HEX(network_id), 21)))))),
  field_revs = JSON_OBJECT('*', rev) WHERE fields = '{}';
UPDATE enrolment SET fields = JSON_MERGE_PATCH(details, JSON_OBJECT('kind', kind,
    'carId', LOWER(CONCAT_WS('-', SUBSTR(HEX(car_id), 1, 8), SUBSTR(HEX(car_id), 9, 4), SUBSTR(HEX(car_id), 13, 4), SUBSTR(HEX(car_id), 17, 4), SUBSTR(HEX(car_id), 21))),
    'networkId', LOWER(CONCAT_WS('-', SUBSTR(HEX(network_id), 1, 8), SUBSTR(HEX(network_id), 9, 4), SUBSTR(HEX(network_id), 13, 4), SUBSTR(HEX(network_id), 17, 4), SUBSTR(HEX(network_id), 21))),
    'providerId', IF(provider_id IS NULL, NULL, LOWER(CONCAT_WS('-', SUBSTR(HEX(provider_id), 1, 8), SUBSTR(HEX(provider_id), 9, 4), SUBSTR(HEX(provider_id), 13, 4), SUBSTR(HEX(provider_id), 17, 4), SUBSTR(HEX(provider_id), 21)))))),
  field_revs = JSON_OBJECT('*', rev) WHERE fields = '{}';
UPDATE tariff SET fields = JSON_OBJECT('currency', currency, 'validFrom', DATE_FORMAT(valid_from, '%Y-%m-%d'),
    'perKWh', TRIM(TRAILING '.' FROM TRIM(TRAILING '0' FROM per_kwh)), 'startFee', TRIM(TRAILING '.' FROM TRIM(TRAILING '0' FROM start_fee)),
    'networkId', LOWER(CONCAT_WS('-', SUBSTR(HEX(network_id), 1, 8), SUBSTR(HEX(network_id), 9, 4), SUBSTR(HEX(network_id), 13, 4), SUBSTR(HEX(network_id), 17, 4), SUBSTR(HEX(network_id), 21)))),
  field_revs = JSON_OBJECT('*', rev) WHERE fields = '{}';

ALTER TABLE tariff ADD CONSTRAINT tariff_of_site FOREIGN KEY IF NOT EXISTS tariff_of_site (household_id, site_id) REFERENCES site (household_id, id);
