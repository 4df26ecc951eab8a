import fc from 'fast-check';
import { idOf } from '../visit/fixtures/story';
import { changeOf } from './change-of';
import { ARCHIVED, applyChange, checkChange, type Standing, wholeFields } from './record-change';
import { recordItem } from './record-schema';

const stall = (more: Record<string, unknown> = {}, baseRev = 0) =>
  recordItem('stall', idOf(1), { siteId: idOf(2), name: '4', outlets: [{ connector: 'CCS2', ratedKW: 150 }], ...more } as never, baseRev);
const standing = (fields: Record<string, unknown>, fieldRevs: Record<string, number> = { '*': 5 }): Standing => ({ archived: false, fields, fieldRevs });
const checked = (raw: unknown) => {
  const c = checkChange(raw);
  if (!c.ok) throw new Error(`${c.path}: ${c.reason}`);
  return c.change;
};

describe('a change of a record', () => {
  const before = stall();
  it('carries the fields that changed and no others; a new one carries all', () => {
    const typed = { ...stall({ model: 'Post 9' }, 5) };
    expect(changeOf(typed, { fields: before.fields }).fields).toEqual({ model: 'Post 9' });
    expect(changeOf(typed, { fields: before.fields })).not.toHaveProperty('archived');
    expect(changeOf({ ...typed, archived: true }, { fields: before.fields })).toHaveProperty('archived', true);
    expect(Object.keys(changeOf(before, { fields: before.fields }).fields)).toEqual(Object.keys(before.fields));
    expect(Object.keys(changeOf(typed).fields).length).toBeGreaterThan(5);
  });
  it('is taken into what somebody else changed in another field meanwhile', () => {
    const there = standing({ ...before.fields, note: 'windy' }, { '*': 5, note: 7 });
    const said = applyChange(there, changeOf(stall({ model: 'Post 9' }, 5), { fields: before.fields }));
    expect(said).toMatchObject({ is: 'changed', changed: ['model'], fields: { note: 'windy', model: 'Post 9' } });
  });
  it('of a field that somebody else changed since is a difference to choose from; to the same value it is none', () => {
    const there = standing({ ...before.fields, note: 'windy' }, { '*': 5, note: 7 });
    expect(applyChange(there, changeOf(stall({ note: 'calm' }, 5), { fields: before.fields }))).toEqual({ is: 'elsewhere', fields: ['note'] });
    expect(applyChange(there, changeOf(stall({ note: 'windy' }, 5), { fields: before.fields }))).toEqual({ is: 'same' });
    expect(applyChange(there, changeOf(stall({ note: 'calm' }, 7), { fields: before.fields }))).toMatchObject({ is: 'changed', changed: ['note'] });
  });
  it('putting away counts as a field of its own', () => {
    const put = { type: 'stall' as const, id: idOf(1), baseRev: 5, archived: true, fields: {} };
    expect(applyChange(standing(before.fields), put)).toMatchObject({ is: 'changed', archived: true, changed: [ARCHIVED] });
    expect(applyChange(standing(before.fields, { '*': 5, [ARCHIVED]: 6 }), put)).toEqual({ is: 'elsewhere', fields: [ARCHIVED] });
    expect(applyChange(standing(before.fields), { ...put, archived: false })).toEqual({ is: 'same' });
  });
  it('from an older device leaves alone what that does not know', () => {
    const there = standing({ ...before.fields, brandNew: { x: 1 } });
    const said = applyChange(there, checked({ ...stall({ model: 'Post 9' }), baseRev: 5 }));
    expect(said).toMatchObject({ is: 'changed', fields: { brandNew: { x: 1 }, model: 'Post 9' } });
  });
  it('sent again is the same, however its figures are written', () => {
    const tariff = recordItem('tariff', idOf(3), { networkId: idOf(2), currency: 'EUR', perKWh: '0.50', startFee: '0.0', validFrom: '2025-01-01' });
    const change = checked(tariff);
    expect(applyChange(standing(change.fields), change)).toEqual({ is: 'same' });
    const site = checked(recordItem('site', idOf(4), { networkId: idOf(2), name: 'Vrba', zone: 'UTC', latitude: 46.1234567, longitude: 14.7654321 }));
    expect(applyChange(standing(JSON.parse(JSON.stringify(site.fields))), site)).toEqual({ is: 'same' });
  });
});

describe('what is taken from outside', () => {
  it('a change is held to the bounds of its own fields, by path; a new one as a whole', () => {
    const change = (fields: object) => ({ type: 'stall', id: idOf(1), baseRev: 3, fields });
    expect(checkChange(change({ name: '' }))).toMatchObject({ ok: false, path: 'fields.name' });
    expect(checkChange(change({ outlets: [{ connector: 'CCS2', ratedKW: -1 }] }))).toMatchObject({ ok: false, path: 'fields.outlets.0.ratedKW' });
    expect(checkChange(change({ model: 'x' }))).toMatchObject({ ok: true, change: { fields: { model: 'x' } } });
    expect(checkChange({ ...change({ model: 'x' }), baseRev: 0 })).toMatchObject({ ok: false });
    expect(checkChange(change({ long: 'x'.repeat(70_000) }))).toEqual({ ok: false, path: 'fields', reason: 'hold too much' });
    expect(checkChange({ ...change({}), type: 'lamp' }).ok).toBe(false);
    expect(checkChange([])).toMatchObject({ ok: false, path: 'record' });
  });
  it('the object of a price is held to the standard, new or changed', () => {
    const object = {
      country_code: 'ZZ',
      party_id: 'OWN',
      id: 't',
      currency: 'EUR',
      last_updated: '2025-01-01T00:00:00Z',
      elements: [{ price_components: [{ type: 'ENERGY', price: -1, step_size: 0 }] }],
    };
    const put = (fields: object, baseRev: number) => checkChange({ type: 'tariff', id: idOf(3), baseRev, fields });
    const whole = { networkId: idOf(2), currency: 'EUR', validFrom: '2025-01-01' };
    for (const baseRev of [0, 4]) {
      expect(put({ ...whole, tariff: object }, baseRev)).toEqual({
        ok: false,
        path: 'fields.tariff.elements.0.price_components.0.price',
        reason: 'must not be below 0',
      });
      expect(
        put({ ...whole, tariff: { ...object, elements: [{ price_components: [{ type: 'ENERGY', price: 1, step_size: 0 }] }] }, extra: { idle: 1 } }, baseRev),
      ).toMatchObject({ ok: false, path: 'fields.extra.idle', reason: 'is no field that is known here' });
    }
    expect(put({ ...whole, tariff: [] }, 0)).toMatchObject({ ok: false, path: 'fields.tariff' });
    expect(put({ ...whole }, 0)).toMatchObject({ ok: false, path: 'fields.perKWh', reason: 'What does a kWh cost?' });
    expect(put({ ...whole, perKWh: '0.5', tariff: null, extra: null }, 0)).toMatchObject({ ok: true });
    expect(put({ ...whole, perKWh: '0.5', extra: {} }, 0)).toMatchObject({ ok: false, path: 'fields.extra' });
    expect(put({ ...whole, perKWh: '0.5', validUntil: '2024-12-31' }, 0)).toMatchObject({ ok: false, path: 'fields.validUntil' });
    expect(put({ ...whole, perKWh: '0.5', moreSiteIds: [idOf(9)] }, 0)).toMatchObject({ ok: false, path: 'fields.siteId' });
    expect(put({ ...whole, perKWh: '0.5', planId: idOf(9), providerId: idOf(8) }, 0)).toMatchObject({ ok: false, path: 'fields.providerId' });
  });
  it('fields of a newer version are kept as they come', () => {
    expect(checked({ ...stall(), fields: { ...stall().fields, brandNew: [1, { a: null }] } }).fields.brandNew).toEqual([1, { a: null }]);
    expect(wholeFields('stall', { ...stall().fields, brandNew: 1 })).toMatchObject({ ok: true, fields: { brandNew: 1 } });
  });
  it('two people who change different fields both succeed, in either order, with one outcome', () => {
    const names = ['model', 'note', 'cabinet', 'otherName', 'orderThatWorks'] as const;
    fc.assert(
      fc.property(fc.shuffledSubarray([...names], { minLength: 2, maxLength: 4 }), fc.nat(3), (fields, cut) => {
        const at = Math.min(Math.max(1, cut), fields.length - 1);
        const base = stall().fields as Record<string, unknown>;
        const by = (list: string[], word: string) => ({
          type: 'stall' as const,
          id: idOf(1),
          baseRev: 5,
          fields: Object.fromEntries(list.map((f) => [f, word])),
        });
        const [one, two] = [by(fields.slice(0, at), 'one'), by(fields.slice(at), 'two')];
        const run = (first: typeof one, second: typeof one) => {
          const a = applyChange(standing(base), first);
          if (a.is !== 'changed') throw new Error(a.is);
          return applyChange(standing(a.fields, { '*': 5, ...Object.fromEntries(a.changed.map((f) => [f, 6])) }), second);
        };
        const [ab, ba] = [run(one, two), run(two, one)];
        expect(ab.is).toBe('changed');
        expect(ab.is === 'changed' && ab.fields).toEqual(ba.is === 'changed' && ba.fields);
      }),
      { seed: 7, numRuns: 60 },
    );
  });
});
