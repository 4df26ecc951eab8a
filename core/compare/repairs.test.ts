import { attempt, failed, visit } from './fixtures/rows';
import { outagesSeen, repairCell } from './repairs';

const MIN = 60_000;
const broke = (stallId: string, min: number, more: object = {}) =>
  visit({ at: min * MIN, stallId, firstTry: 'no', attempts: [{ ...failed, stallId, side: 'network', ...more }] });
const worked = (stallId: string, min: number) => visit({ at: min * MIN, stallId, workedAt: [stallId], attempts: [attempt(20, { stallId })] });

describe('outages as visits see them', () => {
  it('of each stall by itself, from the first failure until it worked again, in whatever order the visits came', () => {
    const visits = [worked('a', 50), broke('a', 30), broke('b', 40), worked('a', 10), broke('a', 20), broke('b', 60)];
    expect(outagesSeen(visits)).toEqual([
      // Broken from 20 to 30 at least; it last worked at 10 and next at 50.
      { stallId: 'a', since: 20 * MIN, least_s: 600, most_s: 2400, over: true },
      { stallId: 'b', since: 40 * MIN, least_s: 1200, most_s: null, over: false },
    ]);
    expect(repairCell(visits)).toEqual({ is: 'repair', n: 1, open: 1, least: { known: true, value: 600 }, most: { known: true, value: 2400 } });
  });
  it('one that was given up is broken as well as one that failed; what the car, the card or the driver did is not the stall’s', () => {
    const seen = (more: object) => outagesSeen([broke('a', 10, more)]).length;
    expect(seen({ outcome: 'gave_up' })).toBe(1);
    expect(seen({ side: 'site' })).toBe(1);
    for (const more of [{ outcome: 'open' }, { outcome: 'power' }, { side: null }, { side: 'car' }, { side: 'payment' }, { stallId: null }])
      expect([more, seen(more)]).toEqual([more, 0]);
    // It worked at the same visit, at a second attempt.
    expect(outagesSeen([{ ...broke('a', 10), workedAt: ['a'] }])).toEqual([]);
    expect(outagesSeen([{ ...broke('a', 10), leftOut: true }])).toEqual([]);
  });
  it('broken twice it is two outages, each since when it last worked', () => {
    expect(outagesSeen([worked('a', 0), broke('a', 10), worked('a', 20), broke('a', 30), worked('a', 35)]).map((o) => [o.since / MIN, o.most_s])).toEqual([
      [10, 1200],
      [30, 900],
    ]);
  });
  it('says why nothing is known', () => {
    expect(repairCell([broke('a', 10), worked('a', 20)])).toMatchObject({
      n: 1,
      least: { value: 0 },
      most: { known: false, why: 'never seen working before' },
    });
    expect(repairCell([broke('a', 10)])).toMatchObject({ n: 0, open: 1, least: { known: false, why: 'not seen working since' } });
    expect(repairCell([])).toMatchObject({ n: 0, open: 0, least: { known: false, why: 'none seen broken' } });
  });
});
