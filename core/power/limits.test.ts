import { energyCheck } from './energy-check';
import { limitsOf, voltsAtStall } from './limits';
import { seriesOf } from './series';
import { secondsTo, seriesAt } from './series-at';

describe('a booster', () => {
  const car = { V0: 640, V100: 760, curve: [[0, 150]] as const, boosterKW: 100 };
  const stall = { kind: 'dc', plateKW: 350, maxA: 125, maxV: 500 } as const;
  const kWAt = (boosterV: number | null | undefined, socPct = 50) => limitsOf({ car: { ...car, boosterV }, stall }).kWAt(socPct);

  it('takes the stall’s amps at its own volts where these are known and below the stall’s, else at the stall’s', () => {
    expect(kWAt(400)).toEqual({ kW: 50, limit: 'stall_amps' });
    expect([kWAt(undefined), kWAt(null), kWAt(600)]).toEqual(Array(3).fill({ kW: 62.5, limit: 'stall_amps' }));
  });
  it('counts only where the pack is above the stall’s volts', () => {
    const at = (maxV: number) => voltsAtStall({ car: { ...car, boosterV: 400 }, stall: { ...stall, maxV } }, 50);
    expect([at(699), at(700), at(920)]).toEqual([400, 700, 700]);
    expect(voltsAtStall({ car: { ...car, V0: null }, stall }, 50)).toBeNull();
  });
});

describe('limits that are included', () => {
  it('levels 15 apart are neighbours, in tenths of a per cent too', () => {
    // 62.4 − 47.4 is 15.000000000000007 to a machine.
    const series = seriesOf({
      readings: [
        { t_s: 0, from: 'car', socPct: 47.4 },
        { t_s: 900, from: 'car', socPct: 62.4 },
      ],
    });
    expect(secondsTo(series, 50)).toBeCloseTo(156, 6);
    expect(seriesAt(series, 450).socPct).toBeCloseTo(54.9, 9);
  });
  it('0.2 kWh between power shown and energy metered is allowed, in tenths too', () => {
    // 100 kW for 72 s make 2 kWh against 1.8 metered: a trace more than 0.2 to a machine.
    const check = (end: number) =>
      energyCheck(
        seriesOf({
          readings: [
            { t_s: 60, from: 'stall', kW: 100, kWh: 3 },
            { t_s: 132, from: 'stall', kW: 100, kWh: end },
          ],
        }),
      )?.flag;
    expect([check(4.8), check(4.7)]).toEqual([false, true]);
  });
});
