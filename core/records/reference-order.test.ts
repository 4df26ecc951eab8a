import fc from 'fast-check';
import { idOf } from '../visit/fixtures/story';
import type { Field } from './form-field';
import { inReferenceOrder, isReference } from './reference-order';
import { TYPES } from './types/registry';

type Any = { id: string; fields: object; nth?: number };
const order = (...all: Any[]) => inReferenceOrder(all, (r) => r);
const rec = (n: number, fields: object = {}): Any => ({ id: idOf(n), fields });

describe('records come after those they name', () => {
  const [site, stall, car] = [rec(1, { name: 'Vrba' }), rec(2, { siteId: idOf(1).toUpperCase() }), rec(3)];
  it('wherever they stood', () => expect(order(stall, car, site)).toEqual([site, stall, car]));
  it('and stay as they stood otherwise', () => expect(order(car, site, stall)).toEqual([car, site, stall]));
  it('over several steps, and several at once', () => {
    const plan = rec(4, { moreSiteIds: [idOf(3), 7, idOf(2)], planId: null });
    expect(order(plan, stall, car, site)).toEqual([car, site, stall, plan]);
  });
  it('an id among words, or in what a file said, is no reference: no ring comes of it', () => {
    const told = rec(1, {
      note: `beside ${idOf(2)}`,
      fromFile: { document: `{"stallId":"${idOf(2)}"}`, siteId: idOf(2) },
      evseUids: [idOf(2)],
      ids: idOf(2),
      valid: idOf(2),
    });
    expect(order(stall, told)).toEqual([told, stall]);
  });
  it('two that one names keep their order', () => {
    const means = rec(5, { networkId: idOf(1), carId: idOf(3) });
    expect(order(means, site, car)).toEqual([site, car, means]);
  });
  it('two changes of one record both stay, the earlier first', () => {
    const [first, second] = [
      { ...rec(1), nth: 1 },
      { ...rec(1), nth: 2 },
    ];
    expect(order(stall, first, second)).toEqual([first, second, stall]);
  });
  it('a ring and a record that names itself end', () => {
    const [a, b] = [rec(6, { otherId: idOf(7) }), rec(7, { otherId: idOf(6) })];
    expect(order(a, b)).toEqual([b, a]);
    const own = rec(8, { selfId: idOf(8) });
    expect(order(own)).toEqual([own]);
  });
  it('five hundred changes of one record, each of which names it a thousand times', () => {
    const itself = Array.from({ length: 1000 }, () => idOf(1));
    const all = Array.from({ length: 500 }, (_, nth) => ({ ...rec(1, { moreSiteIds: itself }), nth }));
    expect(order(...all)).toHaveLength(500);
  });
  it('a chain of ten thousand', () => {
    const chain = Array.from({ length: 10_000 }, (_, i) => rec(i, { nextId: idOf(i + 1) }));
    expect(order(...chain)).toEqual(chain.toReversed());
  });
  it('whatever they are, each comes once, and none before what it names', () => {
    fc.assert(
      fc.property(fc.array(fc.array(fc.nat(30), { maxLength: 3 }), { maxLength: 20 }), (names) => {
        // Each names earlier ones only, so that there is no ring; they stand the other way round.
        const all = names.map((named, i) => rec(i, { namedIds: named.filter((n) => n < i).map(idOf) })).reverse();
        const out = order(...all);
        expect(new Set(out)).toEqual(new Set(all));
        expect(out).toHaveLength(all.length);
        const at = new Map(out.map((r, i) => [r.id, i]));
        for (const r of out) for (const id of (r.fields as { namedIds: string[] }).namedIds) expect(at.get(id) as number).toBeLessThan(at.get(r.id) as number);
      }),
      { seed: 7 },
    );
  });
});

it('each reference of a form, and each that the database holds, is in a field that is called so, and to a type of record that there is', () => {
  const fields = (all: readonly Field[]): Field[] => all.flatMap((f) => (f.kind === 'list' ? fields(f.row) : [f]));
  const refs = Object.values(TYPES).flatMap((t) => fields(t.form.flatMap((g) => g.fields)).flatMap((f) => (f.kind === 'ref' ? [f] : [])));
  expect(refs.length).toBeGreaterThan(5);
  for (const { type, path } of refs) expect([Object.keys(TYPES).includes(type), path, isReference(path)]).toEqual([true, path, true]);
  const held = Object.values(TYPES).flatMap((t) => Object.entries(t.columns).flatMap(([name, kind]) => (kind === 'id' ? [name] : [])));
  expect(held.filter((name) => !isReference(name))).toEqual([]);
});
