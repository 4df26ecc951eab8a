// How fast sessions are held to their limits, and how long advice takes. Run by bin/bench; one core.
import { bandsOf } from '@/core/power/bands';
import { paceLimits, sessionPace } from '@/core/power/pace';
import { chartLine } from '@/core/power/power-chart';
import { seriesOf } from '@/core/power/series';
import { stayOrGo } from '@/core/power/stay-or-go';

const say = (what: string, figure: string) => console.log(`${what.padEnd(64)} ${figure}`);
const car = {
  usableKWh: 62,
  V0: 318,
  V100: 403,
  curve: [
    [0, 92],
    [8, 121],
    [30, 121],
    [50, 97],
    [75, 61],
    [95, 24],
    [100, 8],
  ] as [number, number][],
};
const stall = { kind: 'dc' as const, plateKW: 150, maxA: 400 };
const battery = { usableKWh: 62 };
const by = paceLimits({ car, stall }, battery);

/** Sixty looks a minute apart: level, power and meter. */
const session = (n: number) => ({
  readings: Array.from({ length: 60 }, (_, i) => ({
    t_s: 60 * i + (n % 7),
    from: 'stall' as const,
    socPct: Math.min(100, 15 + Math.floor(i * 1.3)),
    kW: 120 - i,
    kWh: Number((i * 0.85).toFixed(1)),
  })),
  end: { t_s: 3600, kWh: 51 },
});
const SESSIONS = 10_000;
const all = Array.from({ length: SESSIONS }, (_, n) => session(n));
let best = Number.POSITIVE_INFINITY;
for (let round = 0; round < 3; round++) {
  const began = performance.now();
  for (const s of all) {
    const series = seriesOf(s);
    bandsOf(series, { usableKWh: 62, kWhPer100km: 18 });
    sessionPace(series, by);
  }
  best = Math.min(best, performance.now() - began);
}
say('bands and pace, sessions of sixty readings a second (10 000)', ((SESSIONS * 1000) / best).toFixed(0));

const asked = {
  setting: { car, stall },
  battery,
  curved: true,
  levels: Array.from({ length: 8 }, (_, i) => ({ min: i * 2.4, socPct: 18 + i * 5 })),
  shown: { min: 16.8, kW: 90 },
  paused: false,
  now_min: 18,
  readAgo_min: 1.2,
  connected_min: 20,
  kWhPer100km: 18,
  kWhPer100kmRange: [16, 21] as const,
  reservePct: 10,
  distance: 'km' as const,
  leg: null,
  fallback_km: null,
  next: {
    name: 'next',
    stall: { stall: { kind: 'dc' as const, plateKW: 300 } },
    outlook: { n: 9, startShare: 0.9, handshake_min: 1, loss_min: 9, pace: 0.95, paced: 4, lastSeen: null },
    toThere: { km: 84, min: 63 },
    thereToEnd: { km: 120, min: 90 },
    direct: { km: 198, min: 149 },
    seenDaysAgo: 3,
  },
  cost: (kWh: number) => kWh * 0.5,
  deadlines: [],
  spread: null,
};
const took = Array.from({ length: 60 }, () => {
  const began = performance.now();
  stayOrGo(asked);
  return performance.now() - began;
}).sort((a, b) => a - b);
say('stay or go with a next site, ms, the middle of sixty (20)', (took[30] as number).toFixed(2));
say('the same, the slowest, ms', (took.at(-1) as number).toFixed(2));

const long = seriesOf({
  readings: Array.from({ length: 10_000 }, (_, i) => ({ t_s: i, from: 'stall' as const, socPct: Math.floor(i / 125), kW: 120 - i / 200 })),
  end: { t_s: 10_000, kWh: 120 },
});
const began = performance.now();
const points = chartLine(long, 'long').points.length;
say(`a chart of ${points} points, laid out once, ms; its crosshair redraws none`, (performance.now() - began).toFixed(0));
