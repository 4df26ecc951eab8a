import fc from 'fast-check';
import { checkEvent } from './check-event';
import type { StoredEvent } from './event';
import { IN, KW, SITE, story, T0 } from './fixtures/story';
import { KINDS } from './kinds/registry';
import { PAYLOADS } from './payloads';

const NOW = T0 + 60_000;
const event = (kind: string, payload: unknown, more: Record<string, unknown> = {}) => ({ ...story(IN)[0], kind, payload, ...more });
const refusal = (raw: unknown) => {
  const r = checkEvent(raw, NOW);
  return r.ok ? null : `${r.path}: ${r.reason}`;
};

describe('an event from outside', () => {
  it('is taken as it is, with nothing else on it', () => {
    const [good] = story(IN);
    const r = checkEvent({ ...good, extra: 'dropped' }, NOW);
    expect(r).toEqual({ ok: true, event: good, newer: false });
  });
  it('is answered the same beside one that was checked', () => {
    const [good] = story(IN) as [StoredEvent];
    const known = checkEvent(good, NOW);
    if (!known.ok) throw new Error('the story is right');
    const odd = fc.oneof(
      fc.constantFrom<unknown>(
        undefined,
        null,
        '',
        'x\u0000y',
        '\ud800',
        Number.NaN,
        -1,
        1.5,
        1e12,
        NOW + 49 * 3600_000,
        [],
        {},
        true,
        { siteId: 'Vrba' },
        SITE,
      ),
      fc.jsonValue(),
    );
    const change = fc.tuple(fc.constantFrom(...Object.keys(good), 'more', '__proto__'), odd);
    fc.assert(
      fc.property(fc.array(change, { maxLength: 3 }), fc.option(fc.constantFrom(...Object.keys(good))), (changes, gone) => {
        const raw: Record<string, unknown> = { ...good };
        for (const [name, value] of changes) Object.defineProperty(raw, name, { value, enumerable: true, configurable: true });
        if (gone) delete raw[gone];
        expect(checkEvent(raw, NOW, known.event)).toEqual(checkEvent(raw, NOW));
      }),
      { numRuns: 3000 },
    );
  });
  it('and as deep as it may be, no deeper', () => {
    const [good] = story(IN) as [StoredEvent];
    const nested = (depth: number): unknown => (depth === 0 ? 1 : { in: nested(depth - 1) });
    for (const depth of [13, 14, 15, 16]) {
      const raw = { ...good, payload: { ...good.payload, more: nested(depth) } };
      expect(checkEvent(raw, NOW, good)).toEqual(checkEvent(raw, NOW));
    }
  });
  it('every known kind has a schema', () => expect(Object.keys(PAYLOADS).sort()).toEqual([...KINDS].sort()));
  it.each([
    ['a reading below zero', event('reading', { screen: 'stall', kWh: '-3' }), 'payload.kWh: must not be negative'],
    ['140 per cent', event('reading', { screen: 'stall', socPct: 140 }), 'payload.socPct: must be at most 100 %'],
    ['kWh as a number', event('reading', { screen: 'stall', kWh: 3.2 }), 'payload.kWh: must be a decimal number in quotes'],
    ['an unknown screen', event('reading', { screen: 'sky' }), 'payload.screen: must be one of: stall, car'],
    ['a site that is no id', event('pulled_in', { siteId: 'Vrba' }), 'payload.siteId: must be a UUID in lower case'],
    ['an id in capitals', event('pulled_in', { siteId: SITE }, { id: SITE.replace('7', 'A') }), 'id: must be a UUID in lower case'],
    ['the far future', event('pulled_in', { siteId: SITE }, { at: NOW + 49 * 3600_000 }), 'at: is more than 48 hours in the future'],
    ['a time that is text', event('pulled_in', { siteId: SITE }, { at: 'now' }), 'at: must be a time in UTC milliseconds'],
    ['a zone nobody knows', event('pulled_in', { siteId: SITE }, { zone: 'Europe/Vrba' }), 'zone: is not a known time zone'],
    ['a missing household', event('pulled_in', { siteId: SITE }, { householdId: undefined }), 'householdId: is missing'],
    [
      'a card number in a note',
      event('note', { text: 'paid with 4111 1111 1111 1111' }),
      'payload.text: This looks like a payment card number. Card numbers are never kept here.',
    ],
    ['no event at all', 'hello', 'event: must hold named fields'],
    ['a list', [], 'event: must hold named fields'],
    ['half an emoji', event('note', { text: 'rain \ud83d' }), 'payload.text: holds half a character'],
    ['half an emoji in a field nobody knows', event('plugged', { more: [{ shade: '\udca5' }] }), 'payload.more.0.shade: holds half a character'],
    ['half an emoji in a name', event('plugged', { '\ud83d': 1 }), 'payload: has a name that holds half a character'],
    ['a zero character', event('note', { text: 'a\u0000b' }), 'payload.text: holds a character that cannot be shown'],
    ['a name that reaches behind', event('plugged', JSON.parse('{"__proto__": {"x": 1}}')), 'payload.__proto__: is a name that cannot be kept'],
    ['a number beyond all numbers', event('hologram', JSON.parse('{"n": 1e999}')), 'payload.n: is a number too large to keep'],
    ['a fault in other letters', event('fault', { code: 'störung', side: 'network' }), 'payload.code: must be a short word of small letters, figures and _'],
    [
      'a refusal with a comma',
      event('means_refused', { meansKind: 'contactless', fault: 'a,b' }),
      'payload.fault: must be a short word of small letters, figures and _',
    ],
    ['the time as a field', event('correction', { target: SITE, set: { at: 'x' } }), 'payload.set.at: is not a field that can be corrected'],
    ['a field that is none', event('correction', { target: SITE, set: { 'a b': 1 } }), 'payload.set.a b: is not a field that can be corrected'],
  ])('%s is refused with path and reason', (_what, raw, want) => expect(refusal(raw)).toBe(want));
  it('up to 48 hours ahead is taken: clocks are wrong', () => expect(refusal(event('pulled_in', { siteId: SITE }, { at: NOW + 47 * 3600_000 }))).toBeNull());
  it('of an unknown kind or a newer version is kept up to 8 kB', () => {
    expect(checkEvent(event('hologram', { any: 'thing' }), NOW)).toMatchObject({ ok: true, newer: true });
    expect(checkEvent(event('power_seen', { colour: 'new' }, { v: 2 }), NOW)).toMatchObject({ ok: true, newer: true });
    expect(refusal(event('hologram', { text: 'ü'.repeat(4200) }))).toBe('payload: is larger than 8 kB');
  });
  it('nested beyond all sense is refused, not fallen over', () => {
    let deep: unknown = 0;
    for (let i = 0; i < 50_000; i++) deep = [deep];
    expect(refusal(event('power_seen', { ...KW, deep }))).toBe('payload.deep: is nested too deeply');
    expect(refusal(event('power_seen', { ...KW, long: 'x'.repeat(70_000) }))).toBe('payload: is larger than 64 kB');
  });
  it('fields of a known kind that this version does not know are kept', () => {
    const r = checkEvent(event('power_seen', { ...KW, shade: 'blue' }), NOW);
    expect(r.ok && r.event.payload.shade).toBe('blue');
  });
  it('whatever it is, never throws', () => {
    fc.assert(
      fc.property(fc.jsonValue(), fc.constantFrom(...KINDS, 'x'), (junk, kind) => {
        expect(checkEvent(junk, NOW).ok).toBe(false);
        expect(typeof checkEvent(event(kind, junk), NOW).ok).toBe('boolean');
      }),
      { seed: 3, numRuns: 500 },
    );
  });
});
