import fc from 'fast-check';
import { idOf } from '../visit/fixtures/story';
import { fieldMessages, signUpForm } from './account-forms';
import { privateNumber } from './private-number';
import { checkRecord } from './record-schema';

describe('numbers that must not be kept', () => {
  // Card test numbers in general use for trying out payment forms; common practice, no source.
  it.each(['4111 1111 1111 1111', 'paid 5555-5555-5555-4444 today', '378282246310005'])('a card number: %s', (text) =>
    expect(privateNumber(text)).toMatch(/payment card/),
  );
  it('a contract id (eMAID form of ISO 15118, from memory)', () => expect(privateNumber('DE-8AA-C12345678-9')).toMatch(/contract/));
  it('a hardware address', () => expect(privateNumber('auto 00:1A:2B:3C:4D:5E')).toMatch(/hardware/));
  it.each(['13:52:08 stall 4, 41.6 kWh for 24.17', 'called +386 1 555 0100', '4111 1111 1111 1112', 'meter 0012345678'])('but not: %s', (text) =>
    expect(privateNumber(text)).toBeNull(),
  );
});

describe('a record from outside', () => {
  const stall = (fields: object) =>
    checkRecord({ type: 'stall', id: idOf(20), baseRev: 0, fields: { siteId: idOf(21), name: '4', connector: 'CCS2', ratedKW: 150, ...fields } });
  it('is taken trimmed', () => expect(stall({ name: '  North ' })).toMatchObject({ ok: true, record: { fields: { name: 'North' } } }));
  it.each([
    [{ ratedKW: 35000 }, 'fields.ratedKW', 'At most 4000 kW'],
    [{ ratedKW: undefined }, 'fields.ratedKW', 'A number of kW'],
    [{ name: ' ' }, 'fields.name', 'The number or name on the post'],
    [{ connector: 'USB' }, 'fields.connector', expect.any(String)],
  ])('%j is refused at its field', (fields, path, reason) => expect(stall(fields)).toEqual({ ok: false, path, reason }));
  it('of an unknown type is refused', () =>
    expect(checkRecord({ type: 'planet', id: idOf(1), baseRev: 0, fields: {} })).toMatchObject({ ok: false, path: 'type' }));
  it('whatever it is, never throws', () =>
    fc.assert(
      fc.property(fc.anything(), (junk) => expect(checkRecord(junk).ok).toBe(false)),
      { seed: 5, numRuns: 300 },
    ));
});

describe('the sign-up form', () => {
  const form = { name: 'Ana', householdName: 'Workshop', email: ' Ana@Example.INVALID ', password: 'ten letters', currency: 'eur', zone: 'Europe/Ljubljana' };
  it('puts address and currency in order', () => expect(signUpForm.parse(form)).toMatchObject({ email: 'ana@example.invalid', currency: 'EUR' }));
  it('says what is wrong beside each field', () => {
    const r = signUpForm.safeParse({ ...form, email: 'ana', password: 'short', zone: 'Here' });
    expect(!r.success && fieldMessages(r.error)).toEqual({
      email: 'This is not an e-mail address',
      password: 'At least 10 characters',
      zone: 'Not a known time zone',
    });
  });
});
