import fixture from './fixtures/still-waiting.json';
import { atRiskAt, medianWait, restrictedMean, stepAt, stillWaiting, type Wait } from './still-waiting';

const waits = (time: number[], event: number[]): Wait[] => time.map((t, i) => ({ time: t, event: event[i] === 1 }));
const near = (got: number | null, expected: number | null, what: string) => {
  if (expected === null || got === null) expect([what, got]).toEqual([what, expected]);
  else expect(Math.abs(got - expected)).toBeLessThanOrEqual(Math.max(1e-9, 1e-9 * Math.abs(expected)));
};

describe('still waiting', () => {
  // Fixture: R 4.2.2, survival 3.5.3.
  it.each(fixture.cases.map((c) => [`${c.id} ${c.label}`, c] as const))('R: %s', (_, c) => {
    const all = waits(c.inputs.time, c.inputs.event);
    const steps = stillWaiting(all);
    const { at } = c.expected;
    for (const [i, time] of at.time.entries()) {
      const step = stepAt(steps, time);
      const of = (name: 'survival' | 'std_err' | 'lower' | 'upper') => (at[name] as (number | null)[])[i] as number | null;
      near(step ? step.still : 1, of('survival'), `S(${time})`);
      near(step ? step.se : 0, of('std_err'), `se(${time})`);
      near(step ? step.lower : null, of('lower'), `lower(${time})`);
      near(step ? step.upper : null, of('upper'), `upper(${time})`);
      expect(atRiskAt(all, time)).toBe(at.n_risk[i]);
    }
    const median = medianWait(steps);
    near(median.median, c.expected.median, 'median');
    near(median.lower, c.expected.median_lower, 'its lower limit');
    near(median.upper, c.expected.median_upper, 'its upper limit');
    const mean = restrictedMean(steps, c.inputs.tau);
    near(mean.mean, c.expected.rmst, 'mean');
    near(mean.se, c.expected.rmst_se, 'its error');
  });
  // Freireich et al., Blood 21 (1963): weeks of remission under 6-mercaptopurine and placebo, as in Cox 1972; from memory.
  it('the remission data: medians 23 and 8 weeks, 0.627 and 0.0952 in remission after 12', () => {
    const sixMP = [6, 6, 6, 7, 10, 13, 16, 22, 23].map((time) => ({ time, event: true }));
    const censored = [6, 9, 10, 11, 17, 19, 20, 25, 32, 32, 34, 35].map((time) => ({ time, event: false }));
    const placebo = [1, 1, 2, 2, 3, 4, 4, 5, 5, 8, 8, 8, 8, 11, 11, 12, 12, 15, 17, 22, 23].map((time) => ({ time, event: true }));
    expect(medianWait(stillWaiting([...sixMP, ...censored])).median).toBe(23);
    expect(medianWait(stillWaiting(placebo)).median).toBe(8);
    expect(stepAt(stillWaiting([...sixMP, ...censored]), 15)?.still).toBeCloseTo(0.69, 2);
    expect(stepAt(stillWaiting(placebo), 12)?.still).toBeCloseTo(4 / 21, 12);
  });
  it('failed starts stand beyond every time: the curve levels off at their share', () => {
    const steps = stillWaiting([...[10, 20, 30].map((time) => ({ time, event: true })), { time: 180, event: false }]);
    expect(steps.at(-1)).toMatchObject({ time: 180, still: 0.25, events: 0, atRisk: 1 });
    expect(medianWait(steps).median).toBe(25);
  });
  it('of nothing is nothing', () => {
    expect(stillWaiting([])).toEqual([]);
    expect(medianWait([])).toEqual({ median: null, lower: null, upper: null });
    expect(restrictedMean([], 60)).toEqual({ mean: 60, se: 0 });
  });
});
