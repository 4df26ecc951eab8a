import { Temporal } from 'temporal-polyfill';
import { SITE, STALL_A } from './fixtures/story';
import { readSeconds, readTypedVisit, type TypedTexts } from './typed-visit-form';

const ZONE = 'Europe/Ljubljana';
const instant = (day: string, time: string, disambiguation: 'earlier' | 'later' = 'earlier') =>
  Temporal.PlainDateTime.from(`${day}T${time}`).toZonedDateTime(ZONE, { disambiguation }).epochMilliseconds;
const instants = (day: string, time: string): number[] => {
  try {
    return [...new Set([instant(day, time), instant(day, time, 'later')])];
  } catch {
    return [];
  }
};
const NOW = Date.parse('2025-10-15T12:00:00Z');
const texts = (more: Partial<TypedTexts> = {}): TypedTexts => ({
  siteId: SITE,
  stallId: STALL_A,
  carId: '',
  drivenBy: '',
  day: '2025-10-14',
  pulledIn: '',
  plugged: '',
  powerSeen: '',
  stopped: '',
  pulledOut: '',
  means: 'contactless',
  handshake: '',
  socFrom: '',
  socTo: '',
  kWh: '',
  minutes: '',
  amount: '',
  currency: 'EUR',
  fault: '',
  charged: 'yes',
  reason: 'enough',
  note: '',
  ...more,
});
const read = (more: Partial<TypedTexts>) => readTypedVisit(texts(more), instants, NOW);

describe('a visit typed in afterwards', () => {
  it('needs a site and a day, nothing else', () => {
    expect(read({ means: '' }).problems).toEqual({});
    expect(read({ siteId: '', day: '' }).problems).toEqual({ siteId: 'Which site?', day: 'Which day?' });
  });
  it('reads local times of the site, over midnight too', () => {
    const { visit } = read({ pulledIn: '23:50', pulledOut: '0:25'.padStart(5, '0') });
    expect(visit?.pulledIn).toBe(Date.parse('2025-10-14T21:50:00Z'));
    expect(visit?.pulledOut).toBe(Date.parse('2025-10-14T22:25:00Z'));
  });
  describe('in the night in which the clock is put back', () => {
    const NOVEMBER = Date.parse('2025-11-15T12:00:00Z');
    const over = (more: Partial<TypedTexts>) => readTypedVisit(texts({ day: '2025-10-26', ...more }), instants, NOVEMBER);
    it('a time that comes twice is the first that is not before the one above it', () => {
      const { visit, problems } = over({ pulledIn: '02:40', plugged: '02:45', powerSeen: '02:10', pulledOut: '03:00' });
      expect(problems).toEqual({});
      expect([visit?.pulledIn, visit?.plugged, visit?.powerSeen, visit?.pulledOut]).toEqual(
        ['00:40', '00:45', '01:10', '02:00'].map((utc) => Date.parse(`2025-10-26T${utc}:00Z`)),
      );
      const alike = over({ pulledIn: '02:40', plugged: '02:40' }).visit;
      expect(alike?.plugged).toBe(alike?.pulledIn);
      expect(over({ pulledIn: '03:10', pulledOut: '02:50' }).problems).toEqual({ pulledOut: 'Is before the time above it' });
    });
    it('a time after midnight is by the clock of the day after', () => {
      const { visit } = over({ day: '2025-10-25', pulledIn: '22:00', stopped: '02:30', pulledOut: '04:00' });
      expect(visit?.stopped).toBe(Date.parse('2025-10-26T00:30:00Z'));
      expect(visit?.pulledOut).toBe(Date.parse('2025-10-26T03:00:00Z'));
    });
  });
  it('says which time is wrong', () => {
    expect(read({ pulledIn: '14:00', plugged: '13:50' }).problems).toEqual({ plugged: 'Is before the time above it' });
    expect(read({ pulledIn: '25:00' }).problems).toEqual({ pulledIn: 'A time such as 13:52' });
    expect(read({ day: '2025-10-15', pulledIn: '18:00' }).problems).toEqual({ pulledIn: 'This time has not come yet' });
    expect(read({ day: '2025-10-16' }).problems).toEqual({ day: 'This day has not come yet' });
  });
  it('says which figure is wrong', () => {
    expect(read({ socFrom: '80', socTo: '20' }).problems).toEqual({ socTo: 'Is below the level on arrival' });
    expect(read({ kWh: '35000', amount: 'x', currency: '€' }).problems).toEqual({
      kWh: 'At most 2000 kWh',
      amount: 'Not a number',
      currency: 'Three letters, such as EUR',
    });
    expect(read({ charged: 'no' }).problems).toEqual({ reason: 'Why did you leave without a charge?' });
    // A test number of a card network, public; common practice, no source.
    expect(read({ note: 'card 4111 1111 1111 1111' }).problems.note).toBeDefined();
  });
  it('takes the minutes of the charge, up to two days', () => {
    expect([read({ minutes: '41,5' }).visit?.minutes, read({ minutes: '2880' }).visit?.minutes, read({}).visit?.minutes]).toEqual([41.5, 2880, null]);
    expect(read({ minutes: '2880.1' }).problems).toEqual({ minutes: 'At most 2880 min' });
    expect(read({ minutes: '1:05' }).problems).toEqual({ minutes: 'Not a number' });
  });
  it('takes a decimal comma, a means held, and a fault with its usual side', () => {
    const { visit } = read({ kWh: '40,1', means: `rfid ${STALL_A}`, fault: 'start_error' });
    expect(visit).toMatchObject({ kWh: '40.1', meansKind: 'rfid', meansId: STALL_A, fault: { code: 'start_error', side: 'network' } });
  });
});

describe('a stopwatch in text', () => {
  it.each([
    ['33.4', 33.4],
    ['1:05', 65],
    ['1:05,2', 65.2],
    ['90', 90],
    ['1:75', null],
    ['soon', null],
    ['', null],
  ])('%s', (text, seconds) => expect(readSeconds(text)).toBe(seconds));
});

describe('the bounds of each field', () => {
  const problem = (more: Partial<TypedTexts>) => read(more).problems;
  it.each<[string, Partial<TypedTexts>, Partial<Record<keyof TypedTexts, string>>]>([
    ['a battery of 100', { socFrom: '0', socTo: '100' }, {}],
    ['a battery of more', { socFrom: '101', socTo: '100.5' }, { socFrom: 'At most 100 %', socTo: 'At most 100 %' }],
    ['a level that stays', { socFrom: '50', socTo: '50' }, {}],
    ['a level on arrival alone', { socFrom: '50' }, {}],
    ['a level at the end alone', { socTo: '5' }, {}],
    ['as much energy as is kept', { kWh: ' 2000 ' }, {}],
    ['more', { kWh: '2000.1' }, { kWh: 'At most 2000 kWh' }],
    ['as much money as is kept', { amount: '100000000' }, {}],
    ['more money', { amount: '100000000.01' }, { amount: 'At most 100000000' }],
    ['a number with something before it', { amount: 'x5' }, { amount: 'Not a number' }],
    ['a number with something after it', { amount: '5x' }, { amount: 'Not a number' }],
    ['a number with two decimals', { amount: '5.25' }, {}],
    ['a handshake', { handshake: ' 33,4 ' }, {}],
    ['no handshake', { handshake: '  ' }, {}],
    ['a handshake that is none', { handshake: 'quick' }, { handshake: 'Such as 33.4 or 1:05' }],
    ['a handshake of two hours', { handshake: '120:00' }, {}],
    ['a longer one', { handshake: '120:01' }, { handshake: 'At most two hours' }],
    ['a currency with more', { currency: 'EURO' }, { currency: 'Three letters, such as EUR' }],
    ['a currency with more before', { currency: 'xEUR' }, { currency: 'Three letters, such as EUR' }],
    ['no charge, given up', { charged: 'no', reason: 'gave_up' }, {}],
    ['no charge, with enough', { charged: 'no', reason: 'enough' }, { reason: 'Why did you leave without a charge?' }],
    ['a note as long as is kept', { note: 'x'.repeat(2000) }, {}],
    ['a longer note', { note: 'x'.repeat(2001) }, { note: 'At most 2000 characters' }],
    ['a note of spaces', { note: ' '.repeat(3000) }, {}],
    ['a time of spaces', { pulledIn: '  ' }, {}],
    ['a time with spaces', { pulledIn: ' 13:52 ' }, {}],
    ['two acts in one minute', { plugged: '13:52', powerSeen: '13:52' }, {}],
    ['just less than half a day before', { pulledIn: '13:52', plugged: '01:53' }, { plugged: 'Is before the time above it' }],
    ['half a day before is the day after', { pulledIn: '13:52', plugged: '01:52' }, {}],
    ['a day that is none', { day: '2025-13-40', pulledIn: '13:52' }, { day: 'Which day?' }],
  ])('%s', (_, more, problems) => expect(problem(more)).toEqual(problems));
  it('this moment has come, the next has not', () => {
    // NOW is 14:00 at the site.
    expect(problem({ day: '2025-10-15', pulledIn: '14:00' })).toEqual({});
    expect(problem({ day: '2025-10-15', pulledIn: '14:01' })).toEqual({ pulledIn: 'This time has not come yet' });
    expect(readTypedVisit(texts({ day: '2025-10-16' }), instants, Date.parse('2025-10-15T22:00:00Z')).problems).toEqual({});
    expect(readTypedVisit(texts({ day: '2025-10-16' }), instants, Date.parse('2025-10-15T21:59:59Z')).problems).toEqual({ day: 'This day has not come yet' });
    // Where a zone has no midnight of that day, its noon is asked.
    expect(readTypedVisit(texts({}), (day, time) => (time === '00:00' ? [] : instants(day, time)), instant('2025-10-14', '11:59')).problems).toEqual({
      day: 'This day has not come yet',
    });
  });
  it('what is empty is not known, what is there is taken as it is', () => {
    const none = read({ stallId: '', means: '' }).visit;
    expect(none).toMatchObject({
      stallId: null,
      carId: null,
      drivenBy: null,
      meansKind: null,
      meansId: null,
      handshake_s: null,
      socFrom: null,
      socTo: null,
      kWh: null,
      amount: null,
      fault: null,
      note: null,
    });
    for (const name of ['pulledIn', 'plugged', 'powerSeen', 'stopped', 'pulledOut'] as const) expect(none?.[name]).toBeNull();
    expect(none?.day).toBe(instant('2025-10-14', '12:00'));
    const all = read({ carId: 'c', drivenBy: 'd', socFrom: '20', socTo: '80', handshake: '33.4', note: '  windy ', charged: 'yes' }).visit;
    expect(all).toMatchObject({ stallId: STALL_A, carId: 'c', drivenBy: 'd', socFrom: 20, socTo: 80, handshake_s: 33.4, note: 'windy', charged: true });
    expect(read({ charged: 'no', reason: 'gave_up' }).visit).toMatchObject({ charged: false, reason: 'gave_up' });
  });
  it('with a problem there is no visit', () => {
    expect(read({ amount: 'x' }).visit).toBeNull();
    expect(read({ day: '' }).visit).toBeNull();
  });
  it.each([
    ['33.4', 33.4],
    [' 33,4 ', 33.4],
    ['1:05', 65],
    ['1:05.2', 65.2],
    ['100:00', 6000],
    ['1:59.9', 119.9],
    ['1:60', null],
    ['75', 75],
    ['x33', null],
    ['33x', null],
    ['1:2:3', null],
    ['33.45', null],
    ['', null],
  ])('%j as seconds is %j', (text, s) => expect(readSeconds(text)).toBe(s));
});
