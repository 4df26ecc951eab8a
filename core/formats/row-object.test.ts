import Ajv from 'ajv/dist/2020';
import type { CsvColumn, CsvValue } from './csv-out';
import { SITE_COLUMNS, TARIFF_COLUMNS, VISIT_SHEETS } from './ledger-tables';
import { memberOf, rowObject, rowSchema } from './row-object';

describe('a row as an object', () => {
  it.each([
    ['visit', 'visit'],
    ['lost to faults (s)', 'lost_to_faults_s'],
    ['delivered (kWh)', 'delivered_kWh'],
    ['battery from (%)', 'battery_from_pct'],
    ['latitude (°)', 'latitude_deg'],
    ['payload (JSON)', 'payload'],
    ['plug–card gap (s)', 'plug_card_gap_s'],
  ])('%s is %s', (heading, member) => {
    expect(memberOf(heading)).toBe(member);
  });
  it('no two columns of a sheet bear one name', () => {
    for (const columns of [...Object.values(VISIT_SHEETS).map((s) => s.columns), SITE_COLUMNS, TARIFF_COLUMNS]) {
      const names = columns.map((c) => memberOf(c.heading));
      expect(new Set([...names, 'unknown']).size).toBe(names.length + 1);
    }
  });
  it('keeps figures as they were, says why one is not known, and is as its schema says', () => {
    const columns: CsvColumn[] = [
      { heading: 'visit', type: 'text', reason: false },
      { heading: 'at', type: 'instant', reason: false },
      { heading: 'energy (kWh)', type: 'decimal', reason: true },
      { heading: 'handshake (s)', type: 'number', reason: true },
      { heading: 'withdrawn', type: 'yesno', reason: false },
      { heading: 'further (JSON)', type: 'text', reason: false },
    ];
    const row: CsvValue[] = [
      'v',
      { at: Date.UTC(2025, 9, 14, 11, 52), zone: 'Europe/Ljubljana', precision: 'min' },
      '12.50',
      { unknown: 'at most 8.0 s' },
      false,
      '{"ref":"=1"}',
    ];
    const object = rowObject(columns, row);
    expect(object).toEqual({
      visit: 'v',
      at: '2025-10-14T13:52+02:00',
      energy_kWh: '12.50',
      handshake_s: null,
      withdrawn: false,
      further: { ref: '=1' },
      unknown: { handshake_s: 'at most 8.0 s' },
    });
    const valid = new Ajv({ strict: false }).compile(rowSchema(columns));
    expect([valid(object), valid.errors]).toEqual([true, null]);
    expect(valid({ ...object, energy_kWh: 12.5 })).toBe(false);
    expect(rowObject(columns, ['v'])).toMatchObject({ at: null, energy_kWh: null, further: null, unknown: {} });
  });
});
