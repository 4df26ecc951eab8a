import { printKW } from '../units/print';
import { bandOf } from './bands';
import { type Condition, overlaps } from './charge-conditions';
import { expectedStretch, kWIn } from './expected';
import type { LimitName, Limits } from './limits';
import type { PaceLimits } from './pace';
import type { Series } from './series';
import { socAt } from './series-at';

/** Under so much of what is expected something else held it back. */
const NOTICED = 0.9;
/** A derate is suspected when power stays within so many kW for so long and so much of the battery. */
const STEADY = { kW: 3, minutes: 5, pct: 10 };
/** Parts of the battery shorter than this are not worth a word. */
const LEAST_PCT = 0.5;

export type HeldBy = LimitName | 'neighbour' | 'climate' | 'cold' | 'hot' | 'phases' | 'ramp' | 'derate_suspected' | 'not_known';
export type HeldBack = {
  from: number;
  to: number;
  by: HeldBy;
  /** On the charging clock, as it was charged; `null` where its ends were not read. */
  minutes: number | null;
  /** The highest that the limit allowed there. */
  kW: number | null;
  /** In a few words, for the stretch itself. */
  text: string;
  /** What speaks for it. */
  evidence: string;
  /** `noted`: somebody wrote it down; `fits`: power was what this limit allows; `guess`: nothing better explains it. */
  sure: 'noted' | 'fits' | 'guess';
};

const CAR: ReadonlySet<HeldBy> = new Set(['car_curve', 'onboard', 'booster', 'adapter_amps', 'cold', 'climate']);
/** True where the car or its driver set the power, not the stall: a weak cable is the stall’s. */
export const isCar = (by: HeldBy): boolean => CAR.has(by);

/** What each limit is called at the tape. */
export function heldText(by: HeldBy, kW: number | null): string {
  const most = kW === null ? '' : `, at most ${printKW(kW).replace(' kW', '')}`;
  const words: Record<HeldBy, string> = {
    car_curve: `car${most}`,
    onboard: `onboard charger${most}`,
    booster: `booster${most}`,
    stall_plate: `plate${most}`,
    derated: `derated${most}`,
    pair_share: `pair${most}`,
    stall_amps: `stall’s amps${most}`,
    cable_amps: `cable’s amps${most}`,
    adapter_amps: `adapter’s amps${most}`,
    ac_line: `phases and amps${most}`,
    volts: 'volts: cannot charge',
    neighbour: kW === null ? 'neighbour, share not noted' : 'neighbour',
    climate: 'heating or cooling',
    cold: 'cold battery',
    hot: 'hot cable',
    phases: 'fewer phases',
    ramp: 'slow ramp',
    derate_suspected: 'derate suspected',
    not_known: 'not told',
  };
  return words[by];
}

type Stretch = { from: number; to: number; noted: readonly Condition[] };

/** A session's stretch cut where something noted began or ended. */
function stretches(from: number, to: number, conditions: readonly Condition[]): Stretch[] {
  const cuts = conditions.flatMap((c) => [c.from ?? from, c.to ?? to]).filter((x) => x > from && x < to);
  const sorted = [...new Set([from, ...cuts, to])].sort((a, b) => a - b);
  return sorted.slice(1).map((end, i) => {
    const start = sorted[i] as number;
    return { from: start, to: end, noted: conditions.filter((c) => overlaps(c, start, end)) };
  });
}

/**
 * What probably held a charge back, stretch by stretch of the battery: the least limit where power was what it allows,
 * else what was noted there, else a suspicion, else that it is not told.
 * @param limitsFor all limits as they stood with these conditions: with a neighbour the pair's share counts
 */
export function whatHeldItBack(
  series: Series,
  by: PaceLimits,
  conditions: readonly Condition[],
  limitsFor: (noted: readonly Condition[]) => Limits,
): HeldBack[] {
  // Where no level was read there is no stretch between them.
  const [from = 0, to = 0] = [series.soc?.y[0], series.soc?.y.at(-1)];
  const suspected = steadyBelow(series, conditions, limitsFor);
  const heldIn = (stretch: Stretch): HeldBack[] => {
    const limits = limitsFor(stretch.noted);
    return expectedStretch(limits, stretch.from, stretch.to, by.battery).heldBackBy.flatMap((h) => {
      const band = bandOf(series, h.from, h.to, { usableKWh: null, kWhPer100km: null });
      const took = band.covered === 'full' ? band.minutes : null;
      const behind = NOTED_LIMITS[h.limit];
      // More power than a limit allows: what was noted did not set it. What else there is may have.
      const without = stretch.noted.filter((c) => c.what !== behind);
      if (took !== null && h.minutes !== null && took < NOTICED * h.minutes && without.length < stretch.noted.length)
        return heldIn({ from: h.from, to: h.to, noted: without });
      return [{ from: h.from, to: h.to, minutes: took, ...reasonOf(h, took, mostIn(limits, h.from, h.to), stretch.noted, suspected) }];
    });
  };
  return merged(stretches(from, to, conditions).flatMap(heldIn));
}

/** Limits that hold only where something was noted. */
const NOTED_LIMITS: Partial<Record<LimitName, Condition['what']>> = { pair_share: 'neighbour', derated: 'derate' };

/** The most that is allowed in a stretch of the battery. */
const mostIn = (limits: Limits, from: number, to: number): number =>
  Math.max(...limits.pieces.filter((p) => p.to > from && p.from < to).flatMap((p) => [kWIn(p, Math.max(p.from, from)), kWIn(p, Math.min(p.to, to))]));

/** What speaks for each that was noted, by how. */
const NOTED_AS: Readonly<Record<'neighbour' | 'derate' | 'cold', Readonly<Record<Condition['noted'], string>>>> = {
  neighbour: {
    during: 'a neighbour plugging in was noted',
    'on arrival': 'a neighbour was charging on arrival',
    'as a fault': 'a drop when shared was noted',
  },
  derate: { during: 'a derate was noted', 'on arrival': 'seen derated', 'as a fault': 'steady power below the plate was noted' },
  cold: { during: 'cold was noted', 'on arrival': 'a cold day, and the battery was not warmed', 'as a fault': 'cold was noted' },
};

type Reason = Pick<HeldBack, 'by' | 'kW' | 'text' | 'evidence' | 'sure'>;
function reasonOf(
  h: { from: number; to: number; limit: LimitName; minutes: number | null },
  took: number | null,
  kW: number,
  noted: readonly Condition[],
  suspected: readonly Steady[],
): Reason {
  const as = (by: HeldBy, evidence: string, sure: HeldBack['sure'], most: number | null = kW): Reason => ({
    by,
    kW: most,
    text: heldText(by, most),
    evidence,
    sure,
  });
  const [neighbour, derate] = (['neighbour', 'derate'] as const).map((what) => noted.find((c) => c.what === what));
  if (h.limit === 'pair_share') return as('pair_share', NOTED_AS.neighbour[neighbour?.noted ?? 'on arrival'], 'noted');
  if (h.limit === 'derated') return as('derated', NOTED_AS.derate[derate?.noted ?? 'on arrival'], 'noted');
  if (took === null || h.minutes === null) return as(h.limit, 'least of the limits on file; how long it took was not read', 'guess');
  if (h.minutes >= NOTICED * took) return as(h.limit, `least of the limits on file, and power was ${h.minutes >= took ? 'as much' : 'near it'}`, 'fits');
  if (neighbour?.kW === null) return as('neighbour', `${NOTED_AS.neighbour[neighbour.noted]}; what the pair shares is not on file`, 'noted', null);
  if (neighbour) return as('neighbour', `${NOTED_AS.neighbour[neighbour.noted]}; what the pair shares by its file would leave more`, 'guess', neighbour.kW);
  // One whose kW are known is among the limits, and allows more.
  if (derate?.kW === null) return as('derated', `${NOTED_AS.derate[derate.noted]}; to how many kW is not known`, 'noted', null);
  const cold = noted.find((c) => c.what === 'cold');
  const simply = (
    [
      ['hot', 'a hot cable or connector was noted'],
      ['phases', 'fewer phases than on the plate were noted'],
      ['cold', cold && NOTED_AS.cold[cold.noted]],
      ['ramp', 'a slow ramp was noted'],
      ['climate', 'heating or cooling ran: part of the power went there'],
    ] as const
  ).find(([what]) => noted.some((c) => c.what === what));
  if (simply) return as(simply[0], simply[1] as string, 'noted', null);
  const steady = suspected.find((x) => x.from < h.to && x.to > h.from);
  if (steady)
    return as(
      'derate_suspected',
      `steady within ${STEADY.kW} kW at about ${printKW(steady.kW)} for ${Math.round(steady.minutes)} min, under 90 % of what car and stall allow, and nothing noted explains it`,
      'guess',
      steady.kW,
    );
  return as('not_known', 'less than car and stall allow, and nothing noted explains it', 'guess', null);
}

type Steady = { from: number; to: number; kW: number; minutes: number };
/** Stretches in which power stood still well below what was expected, with nothing noted to explain it. */
function steadyBelow(series: Series, conditions: readonly Condition[], limitsFor: (noted: readonly Condition[]) => Limits): Steady[] {
  const looks = series.power.flatMap((p) => {
    const level = socAt(series, p.s);
    if (level === null) return [];
    const noted = conditions.filter((c) => overlaps(c, level - LEAST_PCT, level + LEAST_PCT));
    const kW = limitsFor(noted).kWAt(level)?.kW ?? Number.POSITIVE_INFINITY;
    return [{ s: p.s, kW: p.kW, level, low: noted.length === 0 && p.kW < NOTICED * kW }];
  });
  const out: Steady[] = [];
  for (let i = 0; i < looks.length; ) {
    let [j, least, most] = [i, Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
    while (j < looks.length) {
      const look = looks[j] as (typeof looks)[number];
      [least, most] = [Math.min(least, look.kW), Math.max(most, look.kW)];
      if (!look.low || most - least > STEADY.kW) break;
      j += 1;
    }
    const stood = looks.slice(i, j);
    const [first, last] = [stood[0], stood.at(-1)];
    if (first && last && (last.s - first.s) / 60 >= STEADY.minutes && last.level - first.level >= STEADY.pct) {
      const kW = stood.reduce((sum, l) => sum + l.kW, 0) / stood.length;
      out.push({ from: first.level, to: last.level, kW, minutes: (last.s - first.s) / 60 });
    }
    i = Math.max(j, i + 1);
  }
  return out;
}

const together = (a: HeldBack, b: HeldBack): number | null => (a.minutes === null || b.minutes === null ? null : a.minutes + b.minutes);

/** Neighbouring stretches of one reason as one; slivers join what is before them, a first one what comes after. */
function merged(all: readonly HeldBack[]): HeldBack[] {
  const out: HeldBack[] = [];
  for (const h of all) {
    const last = out.at(-1);
    if (!last || (last.by !== h.by && h.to - h.from >= LEAST_PCT)) {
      out.push({ ...h });
      continue;
    }
    last.to = h.to;
    last.minutes = together(last, h);
    if (last.by === h.by && (h.kW ?? 0) > (last.kW ?? 0)) {
      last.kW = h.kW;
      last.text = h.text;
    }
  }
  const [first, second] = out;
  if (first && second && first.to - first.from < LEAST_PCT) {
    second.from = first.from;
    second.minutes = together(first, second);
    out.shift();
  }
  return out;
}
