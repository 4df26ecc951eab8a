/** What may set the power, in the order in which ties are named: the car first, so that nobody blames a stall for its car. */
export const LIMITS = [
  'car_curve',
  'onboard',
  'booster',
  'stall_plate',
  'derated',
  'pair_share',
  'stall_amps',
  'cable_amps',
  'adapter_amps',
  'ac_line',
  'volts',
] as const;
export type LimitName = (typeof LIMITS)[number];

/** Power by battery level, [%, kW], rising in level; two points at one level are a step. */
export type PowerCurve = readonly (readonly [number, number])[];
type Given<T> = { [K in keyof T]?: T[K] | null | undefined };
export type LimitCar = Given<{
  usableKWh: number;
  /** Of the pack, V. */
  V0: number;
  V100: number;
  curve: PowerCurve;
  boosterKW: number;
  /** What the booster takes at the connector, V; as much as the stall gives where not known. */
  boosterV: number;
  onboardKW: number;
  acPhases: number;
  acMaxA: number;
}>;
export type LimitStall = { kind: 'dc' | 'ac' } & Given<{
  plateKW: number;
  maxA: number;
  maxV: number;
  deratedKW: number;
  /** A neighbour draws from the same cabinet, which then leaves so much. */
  paired: boolean;
  shareKW: number;
  cableA: number;
  phases: number;
  /** A phase of AC. */
  V: number;
}>;
export type LimitAdapter = Given<{ maxA: number; maxV: number }>;
export type Setting = { car: LimitCar; stall: LimitStall; adapter?: LimitAdapter | null | undefined };

/** A stretch of the battery in which one limit is the least, and a straight line. */
export type Piece = {
  from: number;
  to: number;
  /** The least of them. */
  limit: LimitName;
  kWFrom: number;
  kWTo: number;
};
export type Limits = {
  /** From 0 to 100 %, without gaps. Empty when nothing is known to limit. */
  pieces: readonly Piece[];
  /** Where the car's curve has points; `null` where it does not enter. */
  curveFrom: number | null;
  curveTo: number | null;
  /** Limits that would need pack volts which are not given. */
  unknown: readonly LimitName[];
  kWAt: (socPct: number) => { kW: number; limit: LimitName } | null;
};

const TIE = 1e-9;
type Line = { limit: LimitName; at: (socPct: number) => number };

/** A line through a stretch's two ends, read at any level of it. */
const along = (a: number, b: number, ya: number, yb: number) => (s: number) => (a === b ? ya : ya + ((yb - ya) * (s - a)) / (b - a));

/** The straight part of the car's curve that holds around a level that is none of its points. */
function curvePart(curve: PowerCurve, socPct: number): (s: number) => number {
  const after = curve.findIndex(([s]) => s > socPct);
  const [before, next] = [curve[after - 1], curve[after]];
  if (after < 0) return () => curve.at(-1)?.[1] as number;
  if (!before || !next) return () => curve[0]?.[1] as number;
  return along(before[0], next[0], before[1], next[1]);
}

/** Whether a pack is above the volts that it can be charged with directly. */
const isAbove = (volts: number, topV: number): boolean => volts > topV * (1 + TIE);

function dcLines({ car, stall, adapter }: Setting, mid: number, atV: number): Line[] {
  const lines: Line[] = [];
  if (car.curve?.length) lines.push({ limit: 'car_curve', at: curvePart(car.curve, mid) });
  const topV = topVolts({ car, stall, adapter });
  const volts = packVoltsOf(car);
  let amperes: ((s: number) => number) | null = volts;
  if (volts && isAbove(volts(atV), topV)) {
    if (typeof car.boosterKW !== 'number') return [{ limit: 'volts', at: () => 0 }];
    const boosterKW = car.boosterKW;
    lines.push({ limit: 'booster', at: () => boosterKW });
    amperes = () => boostedVolts(car.boosterV, topV);
  }
  pushShared(lines, stall);
  if (amperes) {
    const atV = amperes;
    for (const [limit, A] of ampsOf(stall, adapter)) lines.push({ limit, at: (s) => (A * atV(s)) / 1000 });
  }
  return lines;
}

function ampsOf(stall: LimitStall, adapter: LimitAdapter | null | undefined): [LimitName, number][] {
  const all: [LimitName, number | null | undefined][] = [
    ['stall_amps', stall.maxA],
    ['cable_amps', stall.cableA],
    ['adapter_amps', adapter?.maxA],
  ];
  return all.flatMap(([limit, A]) => (typeof A === 'number' ? [[limit, A] as [LimitName, number]] : []));
}

function pushShared(lines: Line[], { plateKW, deratedKW, paired, shareKW }: LimitStall): void {
  if (typeof plateKW === 'number') lines.push({ limit: 'stall_plate', at: () => plateKW });
  if (typeof deratedKW === 'number') lines.push({ limit: 'derated', at: () => deratedKW });
  if (paired && typeof shareKW === 'number') lines.push({ limit: 'pair_share', at: () => shareKW });
}

/** At the AC side: the onboard charger, the phases both have × volts × the least amps, the stall. The DC curve does not enter. */
function acLines({ car, stall }: Setting): Line[] {
  const lines: Line[] = [];
  const { onboardKW } = car;
  if (typeof onboardKW === 'number') lines.push({ limit: 'onboard', at: () => onboardKW });
  pushShared(lines, stall);
  const phases = Math.min(stall.phases ?? Number.POSITIVE_INFINITY, car.acPhases ?? Number.POSITIVE_INFINITY);
  const A = Math.min(stall.maxA ?? Number.POSITIVE_INFINITY, stall.cableA ?? Number.POSITIVE_INFINITY, car.acMaxA ?? Number.POSITIVE_INFINITY);
  const kW = (phases * (stall.V ?? Number.POSITIVE_INFINITY) * A) / 1000;
  if (Number.isFinite(kW)) lines.push({ limit: 'ac_line', at: () => kW });
  return lines;
}

const topVolts = ({ stall, adapter }: Setting): number => Math.min(stall.maxV ?? Number.POSITIVE_INFINITY, adapter?.maxV ?? Number.POSITIVE_INFINITY);

/** Volts of the pack by level: a straight line in per cent, held under load. */
export function packVoltsOf({ V0, V100 }: LimitCar): ((socPct: number) => number) | null {
  return typeof V0 === 'number' && typeof V100 === 'number' ? (s) => V0 + ((V100 - V0) * s) / 100 : null;
}

/** Volts at which a booster takes current where the pack is above the highest that stall and adapter give. @param topV those, V */
export const boostedVolts = (boosterV: number | null | undefined, topV: number): number => Math.min(boosterV ?? topV, topV);

/** Volts at the connector: the pack's, or with a booster those at which it takes current. */
export function voltsAtStall(setting: Setting, socPct: number): number | null {
  const volts = packVoltsOf(setting.car)?.(socPct);
  if (volts === undefined) return null;
  const topV = topVolts(setting);
  return isAbove(volts, topV) ? boostedVolts(setting.car.boosterV, topV) : Math.min(volts, topV);
}

/** The first in the order of names that is the least, as near as numbers tell. */
function leastOf(values: readonly { limit: LimitName; kW: number }[]): { kW: number; limit: LimitName } | null {
  const least = Math.min(...values.map((v) => v.kW));
  const first = values.find((v) => v.kW <= least + TIE * Math.abs(least));
  return first ? { kW: least, limit: first.limit } : null;
}

/**
 * Everything that may set the power of this car at this stall, along the battery from 0 to 100 %. A limit that needs
 * pack volts which are not given is left out and named. @param only the limits to look at; all by default
 */
export function limitsOf(setting: Setting, only: ReadonlySet<LimitName> | null = null): Limits {
  const { car, stall } = setting;
  const dc = stall.kind === 'dc';
  // What is asked of the car alone does not know the stall's volts.
  const carAlone = only !== null && only.size === 1;
  const volts = packVoltsOf(car);
  const linesAt = (mid: number, atV: number): Line[] => {
    const all =
      carAlone && dc
        ? car.curve?.length
          ? [{ limit: 'car_curve' as const, at: curvePart(car.curve, mid) }]
          : []
        : dc
          ? dcLines(setting, mid, atV)
          : acLines(setting);
    return only ? all.filter((l) => l.limit === 'volts' || only.has(l.limit)) : all;
  };
  const marks = new Set([0, 100]);
  if (dc && car.curve) for (const [s] of car.curve) if (s > 0 && s < 100) marks.add(s);
  const topV = topVolts(setting);
  if (dc && volts && car.V0 !== car.V100) {
    const crossing = ((topV - volts(0)) / (volts(100) - volts(0))) * 100;
    if (crossing > 0 && crossing < 100) marks.add(crossing);
  }
  const pieces = apart(marks).flatMap(([from, to]) => {
    const mid = (from + to) / 2;
    return split(from, to, linesAt(mid, mid));
  });
  const kWAt = (socPct: number) => {
    // What holds from a level on; at the very top, what held up to it. Volts are compared at the level itself.
    const piece = pieces.find((p) => socPct < p.to) ?? pieces.at(-1);
    if (!piece) return null;
    const mid = (piece.from + piece.to) / 2;
    return leastOf(linesAt(mid, socPct).map((l) => ({ limit: l.limit, kW: l.at(socPct) })));
  };
  const enters = dc && (!only || only.has('car_curve')) ? car.curve : null;
  return {
    pieces,
    curveFrom: enters?.[0]?.[0] ?? null,
    curveTo: enters?.at(-1)?.[0] ?? null,
    unknown: dc && !volts && !carAlone ? ampsOf(stall, setting.adapter).flatMap(([limit]) => (!only || only.has(limit) ? [limit] : [])) : [],
    kWAt,
  };
}

/** The same limits where only a part of them is had, or more: what a session has shown so far. */
export function pacedLimits(limits: Limits, pace: number): Limits {
  return {
    ...limits,
    pieces: limits.pieces.map((p) => ({ ...p, kWFrom: p.kWFrom * pace, kWTo: p.kWTo * pace })),
    kWAt: (socPct) => {
      const at = limits.kWAt(socPct);
      return at && { ...at, kW: at.kW * pace };
    },
  };
}

/** Neighbouring marks, those nearer than rounding taken as one. */
function apart(marks: Iterable<number>): [number, number][] {
  const sorted = [...marks].sort((a, b) => a - b);
  const kept = sorted.filter((s, i) => i === 0 || s - (sorted[i - 1] as number) > TIE);
  return kept.slice(1).map((to, i) => [kept[i] as number, to]);
}

/** A stretch of straight lines, cut where the least of them changes. */
function split(from: number, to: number, lines: readonly Line[]): Piece[] {
  if (lines.length === 0) return [];
  const cuts = new Set([from, to]);
  for (const [i, a] of lines.entries())
    for (const b of lines.slice(i + 1)) {
      const [d0, d1] = [a.at(from) - b.at(from), a.at(to) - b.at(to)];
      if (d0 * d1 < 0) cuts.add(from + ((to - from) * d0) / (d0 - d1));
    }
  return apart(cuts).flatMap(([f, t]) => {
    const mid = leastOf(lines.map((l) => ({ limit: l.limit, kW: l.at((f + t) / 2) })));
    const line = lines.find((l) => l.limit === mid?.limit);
    return mid && line ? [{ from: f, to: t, limit: mid.limit, kWFrom: line.at(f), kWTo: line.at(t) }] : [];
  });
}
