import fc from 'fast-check';
import { evenStep, MINUTE_STEPS } from './even-step';

describe('an even step', () => {
  it.each([
    [40, 8, 5],
    [41, 8, 10],
    [9 * 1440, 8, 2880],
    [0, 8, 1],
    [30, 0, 30],
    [5000, 0.4, 5760],
  ])('%s minutes in at most %s: %s', (span, most, step) => expect(evenStep(span, most, MINUTE_STEPS)).toBe(step));
  it('is never one of which more fit than asked for, however long the span', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 1e12, noNaN: true }), fc.integer({ min: 1, max: 20 }), (span, most) => {
        const step = evenStep(span, most, MINUTE_STEPS);
        expect(span / step).toBeLessThanOrEqual(most);
        // One smaller would not do.
        const before = MINUTE_STEPS.includes(step) ? MINUTE_STEPS[MINUTE_STEPS.indexOf(step) - 1] : step / 2;
        if (before !== undefined) expect(span / before).toBeGreaterThan(most);
      }),
      { seed: 3, numRuns: 500 },
    );
  });
});
