import { billDoubt, readingDoubt, type SenseFacts } from './sense-check';

const facts = (more: Partial<SenseFacts> = {}): SenseFacts => ({ ratedKW: 150, usableKWh: 62, charging_s: 1500, expectedCost: null, ...more });

describe('a reading is asked about, never blocked', () => {
  const before = [
    { socPct: 20, kWh: '0.4', screen: 'stall' as const },
    { socPct: 61, kWh: '27.9', screen: 'stall' as const },
  ];
  const doubt = (next: Parameters<typeof readingDoubt>[0], more: Partial<SenseFacts> = {}) => readingDoubt(next, before, facts(more));
  it('when the battery goes down', () => expect(doubt({ socPct: 16 })).toMatch(/61 %/));
  it('when the meter goes back', () => expect(doubt({ kWh: '2.8' })).toMatch(/27.9 kWh/));
  it('when the power is above the plate', () => expect(doubt({ kW: 660 })).toMatch(/150 kW/));
  it('when the point slipped', () => expect(doubt({ kWh: '286' })).toMatch(/ten times the 27.9/));
  // 150 kW is 2.5 kWh a minute: common practice, no source.
  it('when it is more than the plate gives in the time', () =>
    expect(doubt({ kWh: '40' }, { charging_s: 600 })).toMatch(/In 10 min a stall of 150 kW gives at most 25.0 kWh/));
  it('when it does not fit the battery’s rise', () => expect(doubt({ socPct: 70, kWh: '58' })).toMatch(/20 to 70 % of 62 kWh is about 31 kWh/));
  it('when it costs more than twice the tariff', () => expect(doubt({ cost: '153.00' }, { expectedCost: 15.3 })).toMatch(/about 15.30/));
  it('when volts times amps are another power', () => expect(doubt({ V: 387, A: 95, kW: 66 })).toMatch(/387 V × 95 A is 37 kW/));
  // 95 A at 387 V is 36.8 kW at the connector while the car shows 33: common practice, no source.
  it('but not when the car shows a little less than the connector', () => expect(doubt({ V: 387, A: 95, kW: 33 })).toBeNull());
  it('not when all is as usual', () => expect(doubt({ socPct: 62, kWh: '28.6', kW: 66, cost: '15.7' }, { expectedCost: 15.73 })).toBeNull());
  it('not against what nobody knows', () =>
    expect(readingDoubt({ kW: 660, kWh: '90', cost: '1' }, [], { ratedKW: null, usableKWh: null, charging_s: null, expectedCost: null })).toBeNull());
});

describe('a bill is asked about, never blocked', () => {
  const expected = { amount: '18.40', text: '€18.40' };
  it.each([
    ['fewer kWh than the stall showed', { amount: '18.40', kWh: '28' }, '31.2', 'The stall showed 31.2 kWh. Does the bill say 28?'],
    ['a tenth of what was expected', { amount: '1.84' }, null, 'By tariff it would be about €18.40. Is it 1.84?'],
    ['ten times it', { amount: '184.0' }, null, 'By tariff it would be about €18.40. Is it 184.0?'],
    ['free where it costs', { amount: '0' }, null, 'By tariff it would be about €18.40. Is it 0?'],
  ] as const)('%s', (_, bill, lastKWh, said) => expect(billDoubt(bill, { lastKWh, expected })).toBe(said));
  it.each([
    ['the same kWh', { amount: '18.40', kWh: '31.2' }, '31.2', expected],
    ['more, read too early', { amount: '18.40', kWh: '33' }, '31.2', expected],
    ['a discount', { amount: '9.20' }, '31.2', expected],
    ['a fee on top', { amount: '40.00' }, null, expected],
    ['what has no tariff', { amount: '184' }, null, null],
    ['a few cents', { amount: '0' }, null, { amount: '0.40', text: '€0.40' }],
  ] as const)('not %s', (_, bill, lastKWh, by) => expect(billDoubt(bill, { lastKWh, expected: by })).toBeNull());
});
