import { bindsIn, expectedStretch, levelAfter, minutesFor } from './expected';
import { limitsOf } from './limits';

describe('minutes along the battery', () => {
  const battery = { usableKWh: 60 };
  const limits = limitsOf({
    car: {
      curve: [
        [0, 0],
        [10, 50],
        [20, 100],
      ],
    },
    stall: { kind: 'dc', plateKW: 80 },
  });
  it('from a level at which nothing flows it never gets anywhere', () => {
    expect(minutesFor(limits, 0, 20, battery)).toBeNull();
    expect(minutesFor(limits, 5, 5, battery)).toBeNull();
    const whole = expectedStretch(limits, 0, 20, battery);
    expect(whole).toMatchObject({ minutes: null, stopsAt: 0, curveExtended: false });
    expect(whole.heldBackBy).toEqual([
      { from: 0, to: 16, limit: 'car_curve', minutes: null },
      { from: 16, to: 20, limit: 'stall_plate', minutes: expect.closeTo(1.8, 9) },
    ]);
    expect(expectedStretch(limits, 5, 30, battery)).toMatchObject({ stopsAt: null, curveExtended: true });
  });
  it('a limit binds where it is the least, and not beside it', () => {
    expect([
      bindsIn(limits, 'stall_plate', 0, 16),
      bindsIn(limits, 'stall_plate', 0, 17),
      bindsIn(limits, 'car_curve', 16, 100),
      bindsIn(limits, 'car_curve', 15, 100),
    ]).toEqual([false, true, false, true]);
  });
  it('the level after so many minutes is that from which they were counted', () => {
    expect(levelAfter(limits, 20, 0, battery)).toBeCloseTo(20, 12);
    expect(levelAfter(limits, 20, 9, battery)).toBeCloseTo(40, 9);
    expect(levelAfter(limits, 20, 36, battery)).toBe(100);
    expect(levelAfter(limits, 20, 35.9, battery)).toBeLessThan(100);
    expect(levelAfter(limits, 0, 50, battery)).toBeCloseTo(0, 9);
    expect(levelAfter(limits, 20, 9, battery, 0.5)).toBeCloseTo(30, 9);
  });
});

it('a level at which power falls to nothing is never reached, whatever else limits below it', () => {
  // The last stretch is cut where the plate gives way to the curve, and its end worked out along a slope would leave a trace of power.
  for (let plateKW = 7; plateKW < 180; plateKW += 3.7)
    for (const from of [60, 72, 79.3]) {
      const limits = limitsOf({
        car: {
          curve: [
            [72, 180],
            [80, 0],
            [94, 176],
          ],
        },
        stall: { kind: 'dc', plateKW },
      });
      const whole = expectedStretch(limits, from, 80, { usableKWh: 58.5 });
      expect([minutesFor(limits, from, 80, { usableKWh: 58.5 }, 0.8), whole.minutes, whole.stopsAt]).toEqual([null, null, 80]);
      expect(minutesFor(limits, from, 79.9, { usableKWh: 58.5 })).toBeGreaterThan(0);
    }
});
