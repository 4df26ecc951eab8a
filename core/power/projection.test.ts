import { battery, car, dc } from './fixtures/stay-asked';
import { limitsOf } from './limits';
import { paceSoFar, project } from './projection';

describe('projections', () => {
  it('between readings the level goes on at the session’s pace', () => {
    const levels = [
      { min: 0, socPct: 20 },
      { min: 3.1, socPct: 30 },
    ];
    expect(project(limitsOf({ car, stall: dc(150) }), battery, levels, 6.2)?.nowPct).toBeCloseTo(40, 6);
  });
  it('too little of the battery or the clock says nothing of the pace', () => {
    const limits = limitsOf({ car, stall: dc(150) });
    expect(
      paceSoFar(limits, battery, [
        { min: 0, socPct: 20 },
        { min: 1.9, socPct: 30 },
      ]),
    ).toBe(1);
    expect(
      paceSoFar(limits, battery, [
        { min: 0, socPct: 20 },
        { min: 9, socPct: 22 },
      ]),
    ).toBeCloseTo(0.15, 9);
    expect(
      paceSoFar(limits, battery, [
        { min: 0, socPct: 20 },
        { min: 900, socPct: 40 },
      ]),
    ).toBe(0.15);
    expect(paceSoFar(limits, battery, [])).toBe(1);
  });
});
