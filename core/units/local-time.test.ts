import fc from 'fast-check';
import { Temporal } from 'temporal-polyfill';
import { localInstant, localInstants, localText } from './local-time';

// Held against Temporal (ECMAScript's own, here as a polyfill).
const ZONES = ['Europe/Ljubljana', 'Europe/London', 'America/New_York', 'America/St_Johns', 'Australia/Lord_Howe', 'Asia/Kathmandu', 'Pacific/Apia', 'UTC'];
const byTemporal = (text: string, zone: string) => Temporal.PlainDateTime.from(text).toZonedDateTime(zone).epochMilliseconds;

describe('local times', () => {
  it('are the instants that Temporal says, whatever the zone', () => {
    fc.assert(
      fc.property(fc.integer({ min: Date.UTC(2005, 0), max: Date.UTC(2040, 0) }), fc.constantFrom(...ZONES), (at, zone) => {
        const text = new Date(at).toISOString().slice(0, 19);
        expect(localInstant(text.slice(0, 10), text.slice(11), zone)).toBe(byTemporal(text, zone));
        expect(localText(at, zone)).toBe(
          Temporal.Instant.fromEpochMilliseconds(at).toZonedDateTimeISO(zone).toPlainDateTime().toString({ smallestUnit: 'second', roundingMode: 'floor' }),
        );
      }),
      { seed: 11, numRuns: 2000 },
    );
  });
  it.each([
    ['2025-03-30', '02:30', 'Europe/Ljubljana'],
    ['2025-03-30', '01:59', 'Europe/Ljubljana'],
    ['2025-03-30', '03:00', 'Europe/Ljubljana'],
    ['2025-10-26', '02:30', 'Europe/Ljubljana'],
    ['2025-10-26', '03:00', 'Europe/Ljubljana'],
    ['2025-11-02', '01:30', 'America/New_York'],
    ['2025-04-06', '01:45', 'Australia/Lord_Howe'],
    ['2011-12-30', '12:00', 'Pacific/Apia'],
  ])('around clock changes too: %s %s in %s', (day, time, zone) => {
    expect(localInstant(day, time, zone)).toBe(byTemporal(`${day}T${time}`, zone));
  });
  it('are both that a clock shows as it is put back, the earlier first', () => {
    fc.assert(
      fc.property(fc.integer({ min: -180, max: 180 }), fc.constantFrom(...ZONES), (minutes, zone) => {
        const from =
          Temporal.Instant.from('2025-06-01T00:00Z').toZonedDateTimeISO(zone).getTimeZoneTransition('next')?.epochMilliseconds ?? Date.UTC(2025, 9, 26);
        const text = localText(from + minutes * 60_000, zone);
        const both = (['earlier', 'later'] as const).map((d) => Temporal.PlainDateTime.from(text).toZonedDateTime(zone, { disambiguation: d }));
        const shown = both.filter((z) => z.toPlainDateTime().equals(Temporal.PlainDateTime.from(text))).map((z) => z.epochMilliseconds);
        expect(localInstants(text.slice(0, 10), text.slice(11), zone)).toEqual([...new Set(shown)]);
      }),
      { seed: 12, numRuns: 1000 },
    );
  });
  it('are none where there is no such day, time or zone', () => {
    for (const [day, time, zone] of [
      ['2025-02-30', '10:00', 'UTC'],
      ['2025-02-03', '24:00', 'UTC'],
      ['2025-02-03', '10:60', 'UTC'],
      ['2025-02-03', '', 'UTC'],
      ['', '10:00', 'UTC'],
      ['3 Feb', '10:00', 'UTC'],
      ['2025-02-03', '10:00', 'Mars/Olympus'],
    ] as const)
      expect([day, time, localInstant(day, time, zone)]).toEqual([day, time, null]);
    expect(localInstant('2025-02-03', '9:05', 'UTC')).toBe(Date.UTC(2025, 1, 3, 9, 5));
  });
});
