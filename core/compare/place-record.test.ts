import type { Asked } from '../figures/populations';
import { attempt, failed, visit } from './fixtures/rows';
import { placeFigures, placeRecord } from './place-record';
import type { VisitRow } from './visit-row';
import { againstYardstick } from './yardsticks';

const ASKED: Asked = { time: 'handshake', mark: 'kW', currency: 'EUR' };

describe('the record of a place', () => {
  const at = (stallId: string, yes: boolean, day: number, more = {}) =>
    visit({
      siteId: `site ${stallId}`,
      at: day * 86_400_000,
      month: `2025-${String(1 + (day % 12)).padStart(2, '0')}`,
      firstTry: yes ? 'yes' : 'no',
      attempts: [yes ? attempt(20, { stallId, meansKind: 'app' }) : { ...failed, stallId, meansKind: 'contactless' }],
      ...more,
    });
  const visits = [
    ...Array.from({ length: 12 }, (_, i) => at('good', i !== 0, 10 + i)),
    ...Array.from({ length: 12 }, (_, i) => at('bad', i < 3, 40 + i)),
    at('new', true, 3, { baysSeen: 4, baysOut: 1 }),
    at('good', true, 900, { leftOut: true }),
  ];
  const recorded = () => placeRecord(visits, ASKED, 'stall');
  it('sums up all, from the first visit to the last, without what was left out', () => {
    const record = recorded();
    expect(record.all).toMatchObject({ groups: [], allVisits: 25, cells: { firstTry: { yes: 15, no: 10 }, wait: { timed: 15, never: 10 } } });
    expect([record.from, record.to]).toEqual([3 * 86_400_000, 51 * 86_400_000]);
  });
  it('one lucky start does not lead: few visits are pulled to what all show', () => {
    const record = recorded();
    expect(record.spread).toBe('interior');
    expect(record.choices.map((c) => [c.key, c.yes, c.n])).toEqual([
      ['good', 11, 12],
      ['new', 1, 1],
      ['bad', 3, 12],
    ]);
    const pulled = record.choices.map((c) => c.pulled as number);
    expect(pulled[1]).toBeGreaterThan(0.5);
    expect(pulled[1]).toBeLessThan(0.9);
    expect(record.choices[1]?.interval?.[0]).toBeLessThan(0.5);
    expect(placeRecord(visits, ASKED, 'site').choices.map((c) => c.key)).toEqual(['site good', 'site new', 'site bad']);
  });
  it('months in their order, with what did not start', () => {
    const record = recorded();
    expect(record.trend.map((m) => m.month)).toEqual([...record.trend.map((m) => m.month)].sort());
    expect(record.trend.reduce((n, m) => n + m.n, 0)).toBe(25);
    expect(record.trend.reduce((n, m) => n + m.yes, 0)).toBe(15);
  });
  it('the handshake by means, and bays looked at', () => {
    const record = recorded();
    expect(record.byMeans.map((r) => [r.groups[0]?.key, r.cells.wait?.timed, r.cells.wait?.never]).sort()).toEqual([
      ['app', 15, 0],
      ['contactless', 0, 10],
    ]);
    expect(record.arrival).toMatchObject({ yes: 1, no: 3, looks: 1 });
  });
  it('of one place nothing is to be chosen, of none nothing is known', () => {
    expect(placeRecord([at('good', true, 1)], ASKED, 'stall')).toMatchObject({ spread: null, choices: [{ pulled: null, interval: null }] });
    expect(placeRecord([], ASKED, 'stall')).toMatchObject({ all: null, trend: [], byMeans: [], choices: [], from: null, to: null });
    expect(placeRecord([visit({ firstTry: 'left_out' })], ASKED, 'stall')).toMatchObject({ trend: [], choices: [] });
  });
  it('where nothing can be pulled the greater share leads, then more visits, then the name', () => {
    const order = (...of: VisitRow[]) => {
      const { spread, choices } = placeRecord(of, ASKED, 'stall');
      return [spread, choices.map((c) => c.key)];
    };
    expect(order(at('a', false, 1), at('a', false, 2), at('z', true, 3), at('z', true, 4))).toEqual(['polarised', ['z', 'a']]);
    expect(order(at('b', true, 1), at('z', true, 2), at('z', true, 3), at('a', true, 4))).toEqual(['same', ['z', 'a', 'b']]);
    // A place that was only claimed is none to choose.
    expect(order(at('a', true, 1), at('b', false, 2, { firstTry: 'left_out' }))).toEqual([null, ['a']]);
  });
  it('asks for what it reads', () => {
    const { visit: ofVisit, attempt: ofAttempt } = placeFigures(ASKED);
    for (const name of ['firstTry', 'baysSeen', 'baysOut', 'faultMarks', 'lost_s', 'paid'] as const) expect(ofVisit).toContain(name);
    for (const name of ['stallId', 'meansKind', 'handshake', 'side'] as const) expect(ofAttempt).toContain(name);
  });
});

describe('against a yardstick', () => {
  // 0.97^99 = 0.0490 and 0.99^299 = 0.0495: with one look fewer it is not yet said. Arithmetic.
  it.each([
    [99, 99, 0.97, 'above'],
    [98, 98, 0.97, 'cannot_tell'],
    [299, 299, 0.99, 'above'],
    [298, 298, 0.99, 'cannot_tell'],
    [80, 100, 0.97, 'below'],
    [4, 5, 0.97, 'cannot_tell'],
    [0, 0, 0.97, 'cannot_tell'],
  ] as const)('%i of %i against %d: %s', (works, n, share, said) => expect(againstYardstick(works, n, share)).toBe(said));
});
