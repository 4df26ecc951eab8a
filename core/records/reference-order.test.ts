import fc from 'fast-check';
import { idOf } from '../visit/fixtures/story';
import type { Field } from './form-field';
import { inReferenceOrder } from './reference-order';
import { TYPES } from './types/registry';

type Any = { id: string; fields: object; nth?: number };
const order = (...all: Any[]) => inReferenceOrder(all, (r) => r);
const rec = (n: number, fields: object = {}): Any => ({ id: idOf(n), fields });

describe('records come after those they name', () => {
  const [site, stall, car] = [rec(1, { name: 'Vrba' }), rec(2, { siteId: idOf(1).toUpperCase() }), rec(3)];
  it('wherever they stood', () => expect(order(stall, car, site)).toEqual([site, stall, car]));
  it('and stay as they stood otherwise', () => expect(order(car, site, stall)).toEqual([car, site, stall]));
  it('over several steps, and however deep an id stands', () => {
    const plan = rec(4, { rows: [{ at: { stall: `x ${idOf(2)}` } }] });
    expect(order(plan, stall, site)).toEqual([site, stall, plan]);
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
    const [a, b] = [rec(6, { other: idOf(7) }), rec(7, { other: idOf(6) })];
    expect(order(a, b)).toEqual([b, a]);
    const own = rec(8, { self: idOf(8) });
    expect(order(own)).toEqual([own]);
  });
  it('five hundred changes of one record, each of which names it a thousand times', () => {
    const itself = Array.from({ length: 1000 }, () => idOf(1)).join(' ');
    const all = Array.from({ length: 500 }, (_, nth) => ({ ...rec(1, { note: itself }), nth }));
    expect(order(...all)).toHaveLength(500);
  });
  it('a chain of ten thousand', () => {
    const chain = Array.from({ length: 10_000 }, (_, i) => rec(i, { next: idOf(i + 1) }));
    expect(order(...chain)).toEqual(chain.toReversed());
  });
  it('whatever they are, each comes once, and none before what it names', () => {
    fc.assert(
      fc.property(fc.array(fc.array(fc.nat(30), { maxLength: 3 }), { maxLength: 20 }), (names) => {
        // Each names earlier ones only, so that there is no ring; they stand the other way round.
        const all = names.map((named, i) => rec(i, { named: named.filter((n) => n < i).map(idOf) })).reverse();
        const out = order(...all);
        expect(new Set(out)).toEqual(new Set(all));
        expect(out).toHaveLength(all.length);
        const at = new Map(out.map((r, i) => [r.id, i]));
        for (const r of out) for (const id of (r.fields as { named: string[] }).named) expect(at.get(id) as number).toBeLessThan(at.get(r.id) as number);
      }),
      { seed: 7 },
    );
  });
});

it('each reference of a form is to a type of record that there is', () => {
  const fields = (all: readonly Field[]): Field[] => all.flatMap((f) => (f.kind === 'list' ? fields(f.row) : [f]));
  const types = Object.values(TYPES).flatMap((t) => fields(t.form.flatMap((g) => g.fields)).flatMap((f) => (f.kind === 'ref' ? [f.type] : [])));
  expect(types.length).toBeGreaterThan(5);
  for (const type of types) expect(Object.keys(TYPES)).toContain(type);
});
