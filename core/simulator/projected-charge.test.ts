import { expectedStretch } from '../power/expected';
import { limitsOf } from '../power/limits';
import { project } from '../power/projection';
import { simulateCharge } from './charge';

const curve: [number, number][] = [
  [0, 120],
  [40, 120],
  [80, 60],
  [100, 20],
];
const model = { usableKWh: 62, curve };
const battery = { usableKWh: 62 };

/** The levels a driver would tap: every ten per cent, as whole per cents. */
function tapped(limits: { stallKW: number; factor?: number }) {
  const samples = simulateCharge(model, 18, 90, { ...limits, loss: 0 });
  return samples
    .filter((s, i) => i > 0 && Math.floor(s.socPct / 10) > Math.floor((samples[i - 1]?.socPct ?? 0) / 10))
    .map((s) => ({ min: s.t_s / 60, socPct: Math.round(s.socPct) }));
}

describe('projections against a simulated charge whose truth is known', () => {
  it.each([
    ['an honest stall', { stallKW: 150 }, 0.04],
    ['a slow post', { stallKW: 50 }, 0.04],
    ['a cold battery', { stallKW: 150, factor: 0.6 }, 0.06],
  ])('%s: tapped every ten per cent, the time to 90 %% is met from 40 %% on', (name, limits, within) => {
    const levels = tapped(limits);
    const allowed = limitsOf({ car: { ...battery, curve }, stall: { kind: 'dc', plateKW: limits.stallKW } });
    const truth = levels.at(-1)?.min as number;
    const errors = levels.flatMap((at, i) => {
      if (at.socPct < 40 || at.socPct >= 90) return [];
      const found = project(allowed, battery, levels.slice(0, i + 1), at.min);
      const rest = found && expectedStretch(found.limits, found.nowPct, 90, battery).minutes;
      return [(rest as number) - (truth - at.min)];
    });
    const worst = Math.max(...errors.map(Math.abs));
    console.info(`${name}: the time to 90 % was missed by ${worst.toFixed(1)} min at most, of ${truth.toFixed(0)} min`);
    expect(errors).toHaveLength(5);
    expect(worst / truth).toBeLessThan(within);
  });
});
