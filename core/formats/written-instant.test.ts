import { writtenInstant } from './written-instant';

const at = Date.UTC(1985, 3, 12, 23, 20, 50, 520);
describe('a moment as programs write it', () => {
  // The examples of RFC 3339, section 5.8, but for its two leap seconds.
  it.each([
    ['1985-04-12T23:20:50.52Z', at, 'ms'],
    ['1996-12-19T16:39:57-08:00', Date.UTC(1996, 11, 20, 0, 39, 57), 's'],
    ['1937-01-01T12:00:27.87+00:20', Date.UTC(1937, 0, 1, 11, 40, 27, 870), 'ms'],
    // The notes of its section 5.6: small letters, a blank.
    ['1985-04-12t23:20:50.52z', at, 'ms'],
    ['1985-04-12 23:20:50.520000+00:00', at, 'ms'],
    ['1985-04-12T23:20:50.520999999Z', at, 'ms'],
    // ISO 8601-1, from memory.
    ['1985-04-12T23:20:50,52Z', at, 'ms'],
    ['1985-04-13T01:20+0200', Date.UTC(1985, 3, 12, 23, 20), 'min'],
    ['1985-04-12T18:20-05', Date.UTC(1985, 3, 12, 23, 20), 'min'],
    ['1985-04-12T24:00Z', Date.UTC(1985, 3, 13), 'min'],
  ])('%s', (text, ms, precision) => expect(writtenInstant(text)).toMatchObject({ at: ms, precision }));
  it('the day alone has no time yet', () => expect(writtenInstant('1985-04-12')).toEqual({ day: [1985, 4, 12], at: null, precision: 'day' }));
  it.each([
    '1985-04-12T23:20:50',
    '1985-04-12T23:20',
    '1985-04-12T23Z',
    '1985-04-12Z',
    '1985-4-12T23:20Z',
    '19850412T232050Z',
    '1985-02-30',
    '1985-02-30T23:20Z',
    '1985-04-12T25:20Z',
    '1985-04-12T23:60Z',
    '1990-12-31T23:59:60Z',
    '1985-04-12T24:00:01Z',
    '1985-04-12T23:20.5Z',
    '1985-04-12T23:20:50.Z',
    '1985-04-12T23:20+25:00',
    '1985-04-12T23:20+02:60',
    '1985-04-12T23:20+2:00',
    ' 1985-04-12',
    '1985-04-12\n',
    '',
  ])('%j is none', (text) => expect(writtenInstant(text)).toBeNull());
});
