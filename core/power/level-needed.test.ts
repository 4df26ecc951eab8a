import { levelNeeded } from './level-needed';
import { limitsOf } from './limits';

// 60 kWh at 20 kWh for 100 km and 60 kW: a per cent is 3 km and 36 s.
const battery = { usableKWh: 60 };
const limits = limitsOf({ car: { curve: [[0, 60]] }, stall: { kind: 'dc', plateKW: 60 } });
const need = (now: number, more: Partial<Parameters<typeof levelNeeded>[3]> = {}) =>
  levelNeeded(limits, battery, now, { leg_km: 120, kWhPer100km: 20, reservePct: 10, ...more });

describe('the level that the next leg needs', () => {
  it('to the last figure: enough is enough, and all of the battery is there to be used', () => {
    expect(need(50)).toMatchObject({ neededPct: 50, enoughNow: true, stayUntil_min: 0, arrivalPct: null, leaveBy: null });
    expect(need(49.9)).toMatchObject({ enoughNow: false, stayUntil_min: expect.closeTo(0.06, 9) });
    // 0.1 + 0.2 of a machine.
    expect(need(50 - 1e-12).enoughNow).toBe(true);
    expect(need(20, { leg_km: 270 })).toMatchObject({ neededPct: 100, feasible: true, shortByPct: 0, stayUntil_min: expect.closeTo(48, 9) });
    expect(need(20, { leg_km: 273 })).toMatchObject({ feasible: false, shortByPct: expect.closeTo(1, 9), stayUntil_min: null });
    expect(need(20, { leg_km: 210, mostPct: 80 }).feasible).toBe(true);
    expect(need(20, { leg_km: 211, mostPct: 80 }).feasible).toBe(false);
  });
  it('the reserve reaches the fallback; where both are as far it is the reserve', () => {
    expect(need(20, { fallback_km: 30 })).toMatchObject({ reserveFrom: 'reserve', reserveUsedPct: 10 });
    expect(need(20, { fallback_km: 33 })).toMatchObject({ reserveFrom: 'fallback', reserveUsedPct: 11 });
  });
  it('the soonest deadline less its way, the first of those that come at once', () => {
    const deadlines = [
      { why: 'table', in_min: 60, drive_min: 42 },
      { why: 'ferry', in_min: 18 },
      { why: 'late', in_min: 90 },
    ];
    // From 20 to 50 % are 18 minutes.
    expect(need(20, { deadlines }).leaveBy).toEqual({ why: 'table', in_min: 18, conflict: false });
    expect(need(19.9, { deadlines }).leaveBy).toEqual({ why: 'table', in_min: 18, conflict: true });
    expect(need(20, { leg_km: 400, deadlines: deadlines.slice(2) }).leaveBy).toEqual({ why: 'late', in_min: 90, conflict: true });
  });
  it('what one would arrive with, at the usual, the worst and the best', () => {
    expect(need(20, { arriveFromPct: 50 }).arrivalPct).toEqual({ usual: 10, worst: 10, best: 10 });
    expect(need(20, { arriveFromPct: 50, kWhPer100kmRange: [15, 25] }).arrivalPct).toEqual({ usual: 10, worst: 0, best: 20 });
  });
});
