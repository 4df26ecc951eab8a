import { currencySymbol, printMoney, printPerKWh, toMinor } from './money';
import { printAgo, printConsumption, printCount, printDistance, printDuration, printKWh, printShift, printStopwatch } from './print';
import { isZone, localDay, localMonth, printClock, printDay, printMonth, printTime } from './zoned';

describe('durations', () => {
  it.each([
    [0, '0.0 s'],
    [33.4, '33.4 s'],
    [59.94, '59.9 s'],
    [59.96, '1:00'],
    [60, '1:00'],
    [468, '7:48'],
    [3080, '51:20'],
    [3723, '1:02:03'],
    [-20, '\u221220.0 s'],
    [-0.01, '0.0 s'],
  ])('%d s is %s', (s, text) => expect(printDuration(s)).toBe(text));
  it.each([
    [0, '0:00.0'],
    [27.46, '0:27.4'],
    [60, '1:00.0'],
    [599.99, '9:59.9'],
    [3600, '1:00:00'],
  ])('a running clock at %d s shows %s', (s, text) => expect(printStopwatch(s)).toBe(text));
  it('distances have one decimal below ten', () =>
    expect([0.04, 9.94, 9.96, 137.4].map((km) => printDistance(km))).toEqual(['0.0 km', '9.9 km', '10 km', '137 km']));
  // An international mile is 1.609344 km, so 100 km are 62.137 mi (by definition, from memory).
  it('in miles too', () => expect([1.609344, 100, 16.0].map((km) => printDistance(km, 'mi'))).toEqual(['1.0 mi', '62 mi', '9.9 mi']));
  // 20 kWh/100 km are 200 Wh/km, 5 km/kWh and, by the mile, 3.107 mi/kWh (worked by hand).
  it('consumption in the way it is spoken of', () =>
    expect((['kWh/100 km', 'Wh/km', 'km/kWh', 'mi/kWh'] as const).map((unit) => printConsumption(20, unit))).toEqual([
      '20.0 kWh/100 km',
      '200 Wh/km',
      '5.0 km/kWh',
      '3.1 mi/kWh',
    ]));
  it('ages are coarse', () => expect([printAgo(10), printAgo(125), printAgo(8000)]).toEqual(['just now', '2 min ago', '2 h ago']));
});

describe('figures', () => {
  it('energy has one decimal, rounded half up from the decimal text', () =>
    expect([printKWh('40.55'), printKWh('40.549'), printKWh(0)]).toEqual(['40.6 kWh', '40.5 kWh', '0.0 kWh']));
  it('counts agree with their noun', () => expect([printCount(1, 'visit'), printCount(2, 'visit')]).toEqual(['1 visit', '2 visits']));
  it('money is in the currency’s own form and minor unit (ISO 4217)', () => {
    expect([printMoney('24.165', 'EUR'), printMoney('1234.5', 'GBP'), printMoney('1200.4', 'JPY')]).toEqual(['€24.17', '£1,234.50', '¥1,200']);
    expect(toMinor('2.675', 'EUR')).toBe('2.68');
  });
  it.each([
    ['USD', '$12.50'],
    ['CAD', 'CA$12.50'],
    ['JPY', '¥13'],
    ['CNY', 'CN¥12.50'],
    ['GBP', '£12.50'],
    ['SEK', 'SEK 12.50'],
    ['NOK', 'NOK 12.50'],
    ['CHF', 'CHF 12.50'],
    ['PLN', 'zł 12.50'],
  ])('%s beside others of its sign is %s', (currency, text) => {
    expect(printMoney('12.5', currency).replace('\u00a0', ' ')).toBe(text);
    expect(text.startsWith(currencySymbol(currency))).toBe(true);
  });
  it.each([
    ['0.5824', 'EUR', '€0.582'],
    ['9.9994', 'CZK', 'Kč 9.999'],
    ['15.4', 'CZK', 'Kč 15.40'],
    ['55.25', 'JPY', '¥55.3'],
    ['229.9', 'HUF', 'Ft 229.9'],
    ['3858.4', 'VND', '₫3,858'],
  ])('a price of %s %s a kWh is %s: three decimals, fewer where a kWh is many', (price, currency, text) =>
    expect(printPerKWh(price, currency).replace('\u00a0', ' ')).toBe(text),
  );
});

describe('times of day', () => {
  // European summer time ends on the last Sunday of October at 01:00 UTC (Directive 2000/84/EC).
  it('follow the site’s zone over the change of the clocks', () => {
    expect(printClock(Date.parse('2025-10-25T23:59:59Z'), 'Europe/Ljubljana')).toBe('01:59:59');
    expect(printClock(Date.parse('2025-10-26T00:59:59Z'), 'Europe/Ljubljana')).toBe('02:59:59 (+02:00)');
    expect(printClock(Date.parse('2025-10-26T01:00:00Z'), 'Europe/Ljubljana')).toBe('02:00:00 (+01:00)');
    expect(printClock(Date.parse('2025-10-26T02:00:00Z'), 'Europe/Ljubljana')).toBe('03:00:00');
  });
  // British time ends at the same instant. Lord Howe puts back by half an hour, first Sunday of April, Newfoundland by one, first Sunday of November (IANA tz database, from memory).
  it.each([
    ['Europe/London', '2025-10-26T00:30:00Z', '01:30 (+01:00)'],
    ['Europe/London', '2025-10-26T01:30:00Z', '01:30 (+00:00)'],
    ['Australia/Lord_Howe', '2026-04-04T14:29:00Z', '01:29'],
    ['Australia/Lord_Howe', '2026-04-04T14:30:00Z', '01:30 (+11:00)'],
    ['Australia/Lord_Howe', '2026-04-04T15:29:00Z', '01:59 (+10:30)'],
    ['Australia/Lord_Howe', '2026-04-04T15:30:00Z', '02:00'],
    ['America/St_Johns', '2025-11-02T04:00:00Z', '01:30 (-02:30)'],
    ['America/St_Johns', '2025-11-02T05:00:00Z', '01:30 (-03:30)'],
    ['Europe/London', '2025-03-30T01:00:00Z', '02:00'],
    // Samoa left out 30 December 2011 whole: a time comes again a day later, and on another date.
    ['Pacific/Apia', '2011-12-30T11:00:00Z', '01:00'],
    ['UTC', '2025-10-26T01:00:00Z', '01:00'],
  ])('say which of two they are, in %s at %s', (zone, at, text) => expect(printTime(Date.parse(at), zone)).toBe(text));
  it('months are local: New Year comes earlier in the east', () => {
    const t = Date.parse('2025-12-31T23:30:00Z');
    expect([localMonth(t, 'Europe/Ljubljana'), localMonth(t, 'UTC')]).toEqual(['2026-01', '2025-12']);
  });
  it('days are local too: a price of the first holds from midnight at the site', () => {
    const t = Date.parse('2025-02-28T23:30:00Z');
    expect([localDay(t, 'Europe/Ljubljana'), localDay(t, 'UTC')]).toEqual(['2025-03-01', '2025-02-28']);
  });
  it('months have three letters', () => expect([printMonth('2025-09'), printDay(Date.parse('2025-09-22T12:00:00Z'), 'UTC')]).toEqual(['Sep 2025', '22 Sep']));
  it('know a zone from a word', () => expect([isZone('Europe/Vienna'), isZone('Atlantis/Centre')]).toEqual([true, false]));
});

describe('by how much a time was moved', () => {
  it.each([
    [0, 'as recorded'],
    [0.4, 'as recorded'],
    [-11, '11 s earlier'],
    [60, '1 min later'],
    [-4800, '1 h 20 min earlier'],
    [90_061, '1 d 1 h 1 min 1 s later'],
  ])('%d s: %s', (s, text) => expect(printShift(s)).toBe(text));
});
