import fc from 'fast-check';
import { known, unknown } from '../units/known';
import type { ComparedGroup } from './compared-groups';
import { frontier, frontierSentence, type Held, heldTogether } from './frontier';

const row = (key: string, yes: number, no: number, perKWh: string | null, n = yes + no, kWh = 30): ComparedGroup =>
  ({
    groups: [{ by: 'network', key }],
    visits: yes + no,
    allVisits: yes + no,
    sites: 1,
    commonestSite: 1,
    coverage: { noted: 0, billed: 0 },
    cells: {
      firstTry: { is: 'share', yes, no, interval: null, leftOut: 0, without: null },
      allIn: {
        is: 'price',
        n,
        perKWh: perKWh === null ? unknown('no bill') : known(perKWh),
        currency: 'EUR',
        bills: { off: 0, checked: 0 },
        stop: { kWh, hour: 12 },
      },
    },
  }) as ComparedGroup;
const name = (r: ComparedGroup) => r.groups[0]?.key ?? '';
const say = { share: (n: number) => `${Math.round(n * 100)} %`, perKWh: (n: number) => n.toFixed(2), kWh: (n: number) => `${n} kWh` };
const best = (...rows: ComparedGroup[]) => frontier(heldTogether(rows)).map((h) => name(h.row));

describe('reliable or cheap', () => {
  it('are those than which none is both', () => {
    const rows = [row('cheap', 6, 4, '0.40'), row('sure', 10, 0, '0.60'), row('neither', 6, 4, '0.50'), row('middle', 9, 1, '0.50')];
    expect(best(...rows)).toEqual(['sure', 'middle', 'cheap']);
  });
  it('two alike both stand; the cheaper of two as reliable, and the surer of two as cheap, stand alone', () => {
    expect(best(row('a', 9, 1, '0.5'), row('b', 18, 2, '0.50'))).toEqual(['a', 'b']);
    expect(best(row('a', 9, 1, '0.5'), row('b', 9, 1, '0.51'))).toEqual(['a']);
    expect(best(row('a', 9, 1, '0.5'), row('b', 10, 0, '0.5'))).toEqual(['b']);
  });
  it('too few visits, or no price, is held against nothing', () => {
    expect(best(row('few', 4, 0, '0.10'), row('unbilled', 9, 0, null), row('billed twice', 9, 0, '0.1', 2), row('a', 5, 0, '0.5'))).toEqual(['a']);
  });
  it('is said with what the stops were like, and not of one alone', () => {
    expect(frontierSentence([row('cheap', 6, 4, '0.40', 10, 12), row('sure', 10, 0, '0.60'), row('dear', 5, 5, '0.9')], name, say)).toBe(
      'Reliable or cheap, as counted: each of the others is no surer to start and no cheaper than one of these: sure (100 %, 0.60, stops of 30 kWh) and cheap (60 %, 0.40, stops of 12 kWh).',
    );
    expect(frontierSentence([row('a', 10, 0, '0.60'), row('b', 5, 5, '0.9')], name, say)).toContain('one of these: a (100 %');
    expect(frontierSentence([row('a', 10, 0, '0.60'), row('few', 1, 0, '0.9')], name, say)).toBeNull();
  });
  it('every other has one of them at least as good in both', () => {
    const held = fc.array(fc.record({ share: fc.integer({ min: 0, max: 5 }), perKWh: fc.integer({ min: 1, max: 6 }) }), { minLength: 1, maxLength: 12 });
    fc.assert(
      fc.property(held, (all) => {
        const found = frontier(all as unknown as Held[]);
        return (
          found.length > 0 &&
          all.every((a) => found.some((b) => b.share >= a.share && b.perKWh <= a.perKWh)) &&
          found.every((a) => !all.some((b) => b.share > a.share && b.perKWh <= a.perKWh))
        );
      }),
    );
  });
});
