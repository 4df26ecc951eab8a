/** Seconds from the proof of power at which charging stood still, [from, to) each. */
export type Pause = readonly [number, number];

/** Seconds of a charge without its pauses: all of a curve runs on these, so that a pause bends no curve and lowers no mean. */
export type ChargingClock = {
  /** Seconds charged until a moment. */
  charged: (t_s: number) => number;
  pausedAt: (t_s: number) => boolean;
  /** The moment at which so many seconds were charged: the last one, after a pause that lies there. */
  momentOf: (charged_s: number) => number;
};

const UNBROKEN: ChargingClock = { charged: (t_s) => t_s, pausedAt: () => false, momentOf: (charged_s) => charged_s };

/** @param pauses in any order; those that overlap count once */
export function chargingClock(pauses: readonly Pause[]): ChargingClock {
  if (pauses.length === 0) return UNBROKEN;
  const apart: [number, number][] = [];
  for (const [from, to] of [...pauses].sort((a, b) => a[0] - b[0])) {
    const last = apart.at(-1);
    if (to <= from) continue;
    if (last && from <= last[1]) last[1] = Math.max(last[1], to);
    else apart.push([from, to]);
  }
  return {
    charged: (t_s) => t_s - apart.reduce((sum, [from, to]) => sum + Math.max(0, Math.min(t_s, to) - from), 0),
    pausedAt: (t_s) => apart.some(([from, to]) => from <= t_s && t_s < to),
    momentOf: (charged_s) => apart.reduce((t_s, [from, to]) => (from <= t_s ? t_s + to - from : t_s), charged_s),
  };
}
