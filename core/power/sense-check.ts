import type { Reading } from '../visit/attempts';

/**
 * What looks wrong about a reading: asked about once, never blocked.
 * @param before readings of the same attempt in order @param ratedKW plate of the stall, kW
 * @returns a question, or `null`
 */
export function readingDoubt(
  next: { socPct?: number; kW?: number; kWh?: string },
  before: readonly Pick<Reading, 'socPct' | 'kWh' | 'screen'>[],
  ratedKW: number | null,
): string | null {
  const lastSoc = before.filter((r) => r.socPct !== undefined).at(-1)?.socPct;
  if (next.socPct !== undefined && lastSoc !== undefined && next.socPct < lastSoc)
    return `The battery was at ${lastSoc} % before. Has it gone down to ${next.socPct} %?`;
  const lastKWh = before.filter((r) => r.screen === 'stall' && r.kWh !== undefined).at(-1)?.kWh;
  if (next.kWh !== undefined && lastKWh !== undefined && Number(next.kWh) < Number(lastKWh))
    return `The stall showed ${lastKWh} kWh before. Is it ${next.kWh} now?`;
  if (next.kW !== undefined && ratedKW !== null && next.kW > ratedKW * 1.1) return `The plate says ${ratedKW} kW. Does the screen show ${next.kW}?`;
  return null;
}
