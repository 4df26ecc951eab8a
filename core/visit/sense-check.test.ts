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
    expect(doubt({ kWh: '40' }, { charging_s: 600 })).toMatch(/In 10 min a stall of 150 kW gives at most 26.4 kWh/));
  it('when it does not fit the battery’s rise', () => expect(doubt({ socPct: 70, kWh: '58' })).toMatch(/20 to 70 % of 62 kWh is about 31 kWh/));
  it('in whole coins where the screen shows no others', () => expect(doubt({ cost: '2818' }, { expectedCost: 900.4 })).toMatch(/about 900\. Is it 2818/));
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

describe('the bounds of each question', () => {
  type Next = Parameters<typeof readingDoubt>[0];
  type Before = Parameters<typeof readingDoubt>[1][number];
  const NOTHING: SenseFacts = { ratedKW: null, usableKWh: null, charging_s: null, expectedCost: null };
  const stall = (more: Partial<Before>): Before => ({ screen: 'stall', ...more });
  const car = (more: Partial<Before>): Before => ({ screen: 'car', ...more });
  it.each<[string, Next, Before[], Partial<SenseFacts>, RegExp | null]>([
    ['the same level', { socPct: 61 }, [car({ socPct: 61 })], {}, null],
    [
      'a level below the last one read, others between',
      { socPct: 60 },
      [car({ socPct: 61 }), stall({ kW: 50 })],
      {},
      /at 61 % before. Has it gone down to 60 %/,
    ],
    ['a level after none', { socPct: 5 }, [stall({ kWh: '3' })], {}, null],
    ['no level after one', { kW: 5 }, [car({ socPct: 61 })], {}, null],
    ['the same kWh', { kWh: '3.0' }, [stall({ kWh: '3.0' })], {}, null],
    [
      'fewer kWh than the stall showed, other readings between',
      { kWh: '2.9' },
      [stall({ kWh: '3.0' }), stall({ kW: 5 }), car({ kWh: '9' })],
      {},
      /showed 3.0 kWh before. Is it 2.9/,
    ],
    ['fewer kWh than the car showed', { kWh: '2.9' }, [car({ kWh: '3.0' })], {}, null],
    ['no kWh after some', { kW: 5 }, [stall({ kWh: '3.0' })], {}, null],
    ['ten times while it charges', { kWh: '5' }, [stall({ kWh: '0.5' })], { charging_s: 600 }, /5 kWh is ten times the 0.5 before/],
    ['just under ten times', { kWh: '4.9' }, [stall({ kWh: '0.5' })], { charging_s: 600 }, null],
    ['ten times of next to nothing', { kWh: '4' }, [stall({ kWh: '0.4' })], { charging_s: 600 }, null],
    ['ten times, looked at afterwards', { kWh: '5' }, [stall({ kWh: '0.5' })], {}, null],
    ['power a tenth above the plate', { kW: 110 }, [], { ratedKW: 100 }, null],
    ['power more than a tenth above', { kW: 110.2 }, [], { ratedKW: 100 }, /plate says 100 kW. Does the screen show 110.2/],
    ['any power without a plate', { kW: 9999 }, [], {}, null],
    // 100 kW × 1.05 for 360 s is 10.5 kWh, and a tenth: meter class and display.
    ['as many kWh as the plate gives', { kWh: '10.6' }, [], { ratedKW: 100, charging_s: 360 }, null],
    ['more kWh than it gives', { kWh: '10.7' }, [], { ratedKW: 100, charging_s: 360 }, /In 6 min a stall of 100 kW gives at most 10.6 kWh. Is it 10.7/],
    ['more than it gives in seconds', { kWh: '9' }, [], { ratedKW: 100, charging_s: 59 }, /In 59 s a stall/],
    ['more than it gives in a minute', { kWh: '9' }, [], { ratedKW: 100, charging_s: 60 }, /In 1 min a stall/],
    ['kWh without a time', { kWh: '900' }, [], { ratedKW: 100 }, null],
    ['kWh without a plate', { kWh: '900' }, [], { charging_s: 60 }, null],
    ['V × A three kW off', { V: 400, A: 32.5, kW: 10 }, [], {}, null],
    ['V × A more than three kW off', { V: 400, A: 32.6, kW: 10 }, [], {}, /400 V × 32.6 A is 13 kW. Does the screen show 10/],
    ['V × A 15 % of the greater off', { V: 400, A: 294, kW: 100 }, [], {}, null],
    ['V × A more than that off', { V: 400, A: 295, kW: 100 }, [], {}, /is 118 kW/],
    ['less than V × A', { V: 400, A: 180, kW: 100 }, [], {}, /is 72 kW/],
    ['V alone', { V: 400, kW: 100 }, [], {}, null],
    ['A alone', { A: 4, kW: 100 }, [], {}, null],
    ['V and A without kW', { V: 400, A: 4 }, [], {}, null],
    // 20 % of 50 kWh, a whole per cent of doubt at both ends: 0.85 × 9.5 to 1.25 × 10.5.
    ['kWh as the battery rose', { socPct: 40, kWh: '13.1' }, [car({ socPct: 20 })], { usableKWh: 50 }, null],
    [
      'kWh more than the battery rose',
      { socPct: 40, kWh: '13.2' },
      [car({ socPct: 20 })],
      { usableKWh: 50 },
      /20 to 40 % of 50 kWh is about 10 kWh. Is it 13.2/,
    ],
    ['the same by an AC outlet, before the onboard charger', { socPct: 40, kWh: '14.1' }, [car({ socPct: 20 })], { usableKWh: 50, ratedKW: 22 }, null],
    ['kWh less than it rose', { socPct: 40, kWh: '8' }, [stall({ kW: 5 }), car({ socPct: 20 }), car({ socPct: 25 })], { usableKWh: 50 }, /20 to 40 %/],
    ['a rise of nineteen', { socPct: 39, kWh: '40' }, [car({ socPct: 20 })], { usableKWh: 50 }, null],
    ['a long rise', { socPct: 80, kWh: '38.1' }, [car({ socPct: 20 })], { usableKWh: 50 }, null],
    ['more than a long rise', { socPct: 80, kWh: '38.2' }, [car({ socPct: 20 })], { usableKWh: 50 }, /about 30 kWh/],
    ['a rise of a battery nobody knows', { socPct: 80, kWh: '90' }, [car({ socPct: 20 })], {}, null],
    ['a rise from nowhere', { socPct: 80, kWh: '90' }, [], { usableKWh: 50 }, null],
    ['kWh without a level', { kWh: '90' }, [car({ socPct: 20 })], { usableKWh: 50 }, null],
    ['a level without kWh', { socPct: 80 }, [car({ socPct: 20 })], { usableKWh: 50 }, null],
    ['twice the cost', { cost: '20' }, [], { expectedCost: 10 }, null],
    ['more than twice', { cost: '20.01' }, [], { expectedCost: 10 }, /By tariff it would be about 10.00. Is it 20.01/],
    ['half of it', { cost: '5' }, [], { expectedCost: 10 }, null],
    ['less than half', { cost: '4.99' }, [], { expectedCost: 10 }, /about 10.00. Is it 4.99/],
    ['any cost where one unit is expected', { cost: '2.01' }, [], { expectedCost: 1 }, /about 1.00/],
    ['any cost where less is expected', { cost: '9' }, [], { expectedCost: 0.99 }, null],
    ['a cost of which no tariff tells', { cost: '9000' }, [], {}, null],
    ['no cost', {}, [], { expectedCost: 10 }, null],
  ])('%s', (_, next, before, more, said) => {
    const got = readingDoubt(next, before, { ...NOTHING, ...more });
    if (said === null) expect(got).toBeNull();
    else expect(got).toMatch(said);
  });
  it.each([
    ['five times', '50', null, /Is it 50/],
    ['just under five times', '49.99', null, null],
    ['a fifth', '2', null, /Is it 2/],
    ['just over a fifth', '2.01', null, null],
  ] as const)('a bill of %s what was expected', (_, amount, lastKWh, said) => {
    const got = billDoubt({ amount }, { lastKWh, expected: { amount: '10', text: '€10.00' } });
    if (said === null) expect(got).toBeNull();
    else expect(got).toMatch(said);
  });
  it('a bill of one unit expected is asked about, one without kWh not against kWh', () => {
    expect(billDoubt({ amount: '5' }, { lastKWh: '30', expected: { amount: '1', text: '€1.00' } })).toMatch(/about €1.00/);
    expect(billDoubt({ amount: '5' }, { lastKWh: '30', expected: null })).toBeNull();
    expect(billDoubt({ amount: '5', kWh: '0' }, { lastKWh: null, expected: null })).toBeNull();
  });
});
