import fc from 'fast-check';
import { idOf } from '../visit/fixtures/story';
import { checkForm, signUpForm } from './account-forms';
import { enrolmentSteps, stepsLeft, unfinished } from './enrolment-steps';
import { accountNumber, privateNumber } from './private-number';
import { checkChange } from './record-change';
import { blankFields } from './record-schema';

describe('numbers that must not be kept', () => {
  // Card test numbers in general use for trying out payment forms; common practice, no source.
  it.each([
    '4111 1111 1111 1111',
    'paid 5555-5555-5555-4444 today',
    '378282246310005',
    '4111 1111 1111 1111 12/27',
    '4111 1111 1111 1111 2025',
    'bay 12 4111-1111-1111-1111',
    '12 378282246310005 7',
    '3782 822463 10005 1',
    '4111\u00a01111\u00a01111\u00a01111',
    '4111\u20131111\u20131111\u20131111',
    '４１１１ １１１１ １１１１ １１１１',
    '41 11 11 11 11 11 11 11',
    '4111 - 1111  1111 1111',
    // Beside an id, and where what looks like one goes on.
    '01a2284f-c5db-7a2b-8123-123456789002 4111111111111111',
    '01a2284f-c5db-7a2b-8123-123456789002-1',
    'a-01a2284f-c5db-7a2b-8123-123456789002',
  ])('a card number: %s', (text) => expect(privateNumber(text)).toMatch(/payment card/));
  it('in a text of any length, whose figures run on for ever', () => {
    for (const figures of ['1 ', '1234 ', '123 - ', '12']) {
      const long = figures.repeat(400_000);
      expect(privateNumber(long)).toBeNull();
      expect(privateNumber(`${long}x 4111 1111 1111 1111`)).toMatch(/payment card/);
    }
  });
  it('a contract id (eMAID form of ISO 15118, from memory)', () => expect(privateNumber('DE-8AA-C12345678-9')).toMatch(/contract/));
  it('a hardware address', () => expect(privateNumber('auto 00:1A:2B:3C:4D:5E')).toMatch(/hardware/));
  it.each([
    '13:52:08 stall 4, 41.6 kWh for 24.17',
    'called +386 1 555 0100',
    '4111 1111 1111 1112',
    'meter 0012345678',
    '8 41 11 11 11 11 11 11 11',
    '84111111111111111',
    '411111111111111111111111',
    // Its last groups have a check digit that is right: one id in some thousands has.
    '01a2284f-c5db-7a2b-8123-123456789002',
    '{"id":"01A2284F-C5DB-7A2B-8123-123456789002"}',
  ])('but not: %s', (text) => expect(privateNumber(text)).toBeNull());
});

describe('ways to pay are named in words', () => {
  // IBAN example of the registry of ISO 13616, from memory; the other numbers are made up.
  it.each(['GB82 WEST 1234 5698 7654 32', 'tag 04A3B2C1D2E380', 'account 12345678', 'no. 1234-5678-90'])('refused: %s', (label) =>
    expect(checkChange({ type: 'means', id: idOf(3), baseRev: 0, fields: { kind: 'rfid', label } })).toMatchObject({
      ok: false,
      path: 'fields.label',
      reason: expect.stringMatching(/never kept here/),
    }),
  );
  it.each(['Workshop tag', 'Bank card, blue', 'Tag 2, expires 2027', 'Facade deadbeef'])('but not: %s', (label) => expect(accountNumber(label)).toBeNull());
});

describe('a record from outside', () => {
  const record = (type: string, fields: object) => checkChange({ type, id: idOf(20), baseRev: 0, fields });
  const outlet = { connector: 'CCS2', ratedKW: 150 };
  const stall = (fields: object) => record('stall', { siteId: idOf(21), name: '4', outlets: [outlet], ...fields });
  const site = (fields: object) => record('site', { networkId: idOf(22), name: 'Vrba Crossing', zone: 'Europe/Ljubljana', ...fields });
  const car = (fields: object) => record('car', { name: 'Heron 62', usableKWh: 62, connectors: ['CCS2'], ...fields });
  const adapter = (fields: object) => record('adapter', { name: 'A', from: 'CHAdeMO', to: 'CCS2', ...fields });
  const plan = (fields: object) => record('plan', { name: 'P', networkId: idOf(1), currency: 'EUR', from: '2025-01-01', ...fields });

  it('is taken trimmed, and what was not said is blank', () =>
    expect(stall({ name: '  North ' })).toMatchObject({
      ok: true,
      change: { fields: { name: 'North', otherName: null, state: null, photos: [] } },
    }));
  it('an empty text is no text', () => expect(site({ entrance: '  ' })).toMatchObject({ ok: true, change: { fields: { entrance: null } } }));
  it('of an earlier version keeps what it says', () => {
    expect(record('stall', { siteId: idOf(21), name: '4', connector: 'CCS2', ratedKW: 150 })).toMatchObject({
      ok: true,
      change: { fields: { outlets: [outlet] } },
    });
    expect(record('car', { name: 'Heron', usableKWh: 62, connector: 'CHAdeMO' })).toMatchObject({ ok: true, change: { fields: { connectors: ['CHAdeMO'] } } });
  });
  it.each([
    [stall({ outlets: [{ connector: 'CCS2', ratedKW: 35000 }] }), 'fields.outlets.0.ratedKW', 'At most 4000 kW: is this in watts?'],
    [stall({ outlets: [{ connector: 'USB', ratedKW: 5 }] }), 'fields.outlets.0.connector', expect.any(String)],
    [stall({ outlets: [] }), 'fields.outlets', 'At least one connector'],
    [stall({ outlets: [{ ...outlet, minV: 500, maxV: 400 }] }), 'fields.outlets.0.maxV', 'Most V is below least V'],
    [stall({ name: ' ' }), 'fields.name', 'The number or name on the post'],
    [stall({ state: { is: 'derated', seenOn: '2025-10-14' } }), 'fields.state.kW', 'Derated to how many kW?'],
    [stall({ sharing: 'shared' }), 'fields.cabinet', 'Name the cabinet that the stalls share'],
    [stall({ builtInAdapter: 'CCS2' }), 'fields.builtInAdapter', expect.stringContaining('CCS2 itself')],
    [site({ zone: 'Europe/Nowhere' }), 'fields.zone', expect.stringContaining('time zone')],
    [site({ latitude: 91, longitude: 3 }), 'fields.latitude', 'Between −90 and 90'],
    [site({ latitude: 46 }), 'fields.longitude', 'Both coordinates, or neither'],
    [site({ helpline: 'ask Jan' }), 'fields.helpline', expect.stringContaining('telephone')],
    [site({ note: '4111 1111 1111 1111' }), 'fields.note', expect.stringContaining('payment card')],
    [site({ photos: [{ sha256: '../../etc/passwd', text: '' }] }), 'fields.photos.0.sha256', expect.any(String)],
    [car({ usableKWh: 62000 }), 'fields.usableKWh', 'At most 1000 kWh: is this in watt-hours?'],
    [car({ connectors: ['CEE red 32 A'] }), 'fields.connectors', 'A car has no CEE red 32 A: that belongs to a stall'],
    [car({ connectors: ['CCS1', 'CCS2'] }), 'fields.connectors', 'No car has both CCS1 and CCS2'],
    [car({ packV0: 400, packV100: 300 }), 'fields.packV100', expect.stringContaining('full pack')],
    [
      car({
        curve: [
          [10, 100],
          [10, 90],
        ],
      }),
      'fields.curve',
      expect.stringContaining('One point per battery level'),
    ],
    [adapter({ from: 'CCS2' }), 'fields.to', 'From CCS2 to CCS2 needs no adapter'],
    [adapter({ from: 'Type 2' }), 'fields.to', 'Type 2 fits into CCS2 without an adapter'],
    [adapter({ from: 'Type 1' }), 'fields.to', expect.stringContaining('direct current')],
    [adapter({ to: 'Household socket' }), 'fields.to', expect.any(String)],
    [plan({ networkId: null }), 'fields.networkId', expect.stringContaining('Whose plan')],
    [plan({ until: '2024-12-31' }), 'fields.until', expect.stringContaining('before it begins')],
    [record('means', { kind: 'rfid', label: 'Tag', expires: '2025-13' }), 'fields.expires', 'A month such as 2026-03'],
    [record('planet', {}), 'type', expect.any(String)],
  ])('is refused at its field: %j', (check, path, reason) => expect(check).toEqual({ ok: false, path, reason }));
  it('a car may have what cars have', () => {
    for (const connectors of [['CCS2', 'CHAdeMO'], ['CHAdeMO', 'Type 1'], ['NACS'], ['GB/T', 'GB/T AC']])
      expect(car({ connectors })).toMatchObject({ ok: true });
  });
  it('whatever it is, never throws', () =>
    fc.assert(
      fc.property(fc.anything(), (junk) => expect(checkChange(junk).ok).toBe(false)),
      { seed: 5, numRuns: 300 },
    ));
  it('its blank form is what the schema fills in', () => {
    expect(blankFields('means')).toEqual({ providerId: null, networkId: null, expires: null, note: null });
    expect(blankFields('stall')).not.toHaveProperty('name');
  });
});

describe('enrolment', () => {
  it('has steps at home and at the stall, each with what shows that it worked', () => {
    for (const kind of ['autocharge', 'plug_and_charge'] as const) {
      const steps = enrolmentSteps(kind);
      expect(new Set(steps.map((s) => s.where))).toEqual(new Set(['home', 'stall']));
      expect(steps.every((s) => s.shows !== '')).toBe(true);
      expect(stepsLeft([{ ...(steps[0] as (typeof steps)[0]), doneOn: '2025-10-01' }, ...steps.slice(1)])[0]).toEqual(steps[1]);
      expect(checkChange({ type: 'enrolment', id: idOf(4), baseRev: 0, fields: { kind, carId: idOf(5), networkId: idOf(6), steps } })).toMatchObject({
        ok: true,
      });
    }
  });
});

const NETWORK_FOR_DAYS = '01900000-0000-7000-8000-000000000001';
describe('a day', () => {
  const tariff = (validFrom: string) =>
    checkChange({
      type: 'tariff',
      id: NETWORK_FOR_DAYS,
      baseRev: 0,
      fields: { networkId: NETWORK_FOR_DAYS, currency: 'EUR', perKWh: '0.5', startFee: '0', validFrom },
    });
  it.each(['1990-01-01', '2024-02-29', '2100-01-01'])('%s is taken', (d) => expect(tariff(d)).toMatchObject({ ok: true }));
  it.each([
    ['0000-01-01', 'Between 1990 and 2100'],
    ['1989-12-31', 'Between 1990 and 2100'],
    ['2100-01-02', 'Between 1990 and 2100'],
    ['9999-12-31', 'Between 1990 and 2100'],
    ['2025-02-29', 'A date such as 2025-10-14'],
  ])('%s is refused', (d, reason) => expect(tariff(d)).toEqual({ ok: false, path: 'fields.validFrom', reason }));
});

describe('the sign-up form', () => {
  const form = { name: 'Ana', householdName: 'Workshop', email: ' Ana@Example.INVALID ', password: 'ten letters', currency: 'eur', zone: 'Europe/Ljubljana' };
  it('puts address and currency in order', () => expect(signUpForm.parse(form)).toMatchObject({ email: 'ana@example.invalid', currency: 'EUR' }));
  it('says what is wrong beside each field', () => {
    expect(checkForm(signUpForm, { ...form, email: 'ana', password: 'short', zone: 'Here', name: 7, currency: undefined })).toEqual({
      ok: false,
      fields: {
        name: 'must be text',
        email: 'This is not an e-mail address',
        password: 'At least 10 characters',
        currency: 'is missing',
        zone: 'Not a known time zone',
      },
    });
    expect(checkForm(signUpForm, 'no form')).toEqual({ ok: false, fields: { form: 'must hold named fields' } });
    expect(checkForm(signUpForm, form)).toMatchObject({ ok: true, data: { name: 'Ana' } });
    expect(checkForm(signUpForm, { ...form, householdName: 'Kolar \ud83d' })).toEqual({ ok: false, fields: { householdName: 'holds half a character' } });
  });
});

describe('an enrolment to finish', () => {
  const of = (networkId: string, more: object = {}, archived = false) => ({
    archived,
    fields: { networkId, chargedOn: null, steps: [{ doneOn: '2025-10-01' }, { doneOn: null }], ...more },
  });
  it('has steps left and no charge by it', () => {
    const open = of('a');
    const all = [
      open,
      of('a', { chargedOn: '2025-10-02' }),
      of('a', { steps: [{ doneOn: '2025-10-01' }] }),
      of('a', { steps: [] }),
      of('a', {}, true),
      of('b'),
    ];
    expect(unfinished(all, 'a')).toEqual([open]);
    expect(unfinished(all, null)).toHaveLength(2);
  });
});
