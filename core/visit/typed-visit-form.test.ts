import { Temporal } from 'temporal-polyfill';
import { SITE, STALL_A } from './fixtures/story';
import { readSeconds, readTypedVisit, type TypedTexts } from './typed-visit-form';

const ZONE = 'Europe/Ljubljana';
const instant = (day: string, time: string): number | null => {
  try {
    return Temporal.PlainDateTime.from(`${day}T${time}`).toZonedDateTime(ZONE).epochMilliseconds;
  } catch {
    return null;
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
  amount: '',
  currency: 'EUR',
  fault: '',
  charged: 'yes',
  reason: 'enough',
  note: '',
  ...more,
});
const read = (more: Partial<TypedTexts>) => readTypedVisit(texts(more), instant, NOW);

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
