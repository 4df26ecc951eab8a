import { csvFormatRows } from 'd3-dsv';
import { minutesFor } from '../power/expected';
import type { PowerCurve } from '../power/limits';
import type { OwnCurve } from '../power/own-curve';
import { type PaceLimits, paceLimits } from '../power/pace';
import { classesOf, curvesLearnt, curveToJudgeBy, type PastSession } from '../power/past-sessions';
import { canJudge, settingOf } from '../power/setting-of';
import { csvText } from '../units/csv-text';
import { grouped } from '../units/grouped';
import { quantiles } from '../units/quantile';
import { onlyVisits } from './filter-words';

export const POWER_BY = ['site', 'network', 'stall', 'model', 'car'] as const;
export type PowerBy = (typeof POWER_BY)[number];
const KEY: Record<PowerBy, (p: PastSession) => string | null> = {
  site: (p) => p.siteId,
  network: (p) => p.networkId,
  stall: (p) => p.stallId,
  model: (p) => p.model || null,
  car: (p) => p.carId,
};

/** One session as it is judged: minutes it took between two levels, and what it should have taken. */
export type JudgedSession = { past: PastSession; took_min: number; word_min: number | null; car_min: number | null };
export type PowerGroup = {
  key: string;
  sessions: number;
  /** Those of which the stall's word is known. */
  judged: number;
  /** Minutes by the word over minutes it took, all sessions together: long ones count more. */
  keepsItsWord: number | null;
  /** Middle and outer of the sessions' own figures; the limits with 95 % confidence of the middle, from six on. */
  median: number | null;
  limits: readonly [number, number] | null;
  least: number | null;
  pace: number | null;
  /** kWh over hours, where both are known. */
  mean_kW: number | null;
  peak_kW: number | null;
  minutes: number;
};

/** A stretch shorter than this says nothing of a stall. */
const LEAST_PCT = 5;
/** Fewer give no interval of 95 % for the middle: 2 × ½⁵ is over 5 %. */
const LEAST_FOR_LIMITS = 6;

/** Each session against the curve of its car: learnt elsewhere, else typed. */
export function judgedSessions(past: readonly PastSession[], taught: readonly PastSession[] = past): JudgedSession[] {
  const classes = classesOf(taught);
  const byCar = new Map([...grouped(taught, (p) => p.carId)].map(([car, of]) => [car, curvesLearnt(car === null ? [] : of)]));
  const nothing = curvesLearnt([]);
  const learnt = new Map<string, OwnCurve>();
  const limits = new Map<string, PaceLimits | null>();
  const curveFor = (p: PastSession): PowerCurve => {
    const klass = classes.get(p) ?? p.looks.klass;
    const key = `${p.carId} ${p.networkId} ${klass}`;
    const found = learnt.get(key) ?? (byCar.get(p.carId) ?? nothing)(klass, p.networkId);
    learnt.set(key, found);
    const { from, to } = p.looks;
    return curveToJudgeBy(found, p.stands?.car.curve ?? [], from === null || to === null ? null : [from, to]).points;
  };
  return past.flatMap((p): JudgedSession[] => {
    const { from, to, took_min } = p.looks;
    if (from === null || to === null || took_min === null || took_min <= 0 || to - from < LEAST_PCT) return [];
    if (!p.stands) return [{ past: p, took_min, word_min: null, car_min: null }];
    const curve = curveFor(p);
    const key = JSON.stringify([p.carId, p.stallId, p.stands.outlet.connector, p.stands.adapter, curve]);
    const kept = limits.get(key);
    const by = kept === undefined ? limitsAt(p.stands, curve) : kept;
    limits.set(key, by);
    const stretch = (of: 'word' | 'car') => by && minutesFor(by[of], from, to, by.battery);
    return [{ past: p, took_min, word_min: stretch('word'), car_min: stretch('car') }];
  });
}

function limitsAt(stands: NonNullable<PastSession['stands']>, curve: PowerCurve): PaceLimits | null {
  const { setting, battery } = settingOf({ ...stands, curve, paired: false, deratedKW: null });
  return canJudge(setting) ? paceLimits(setting, battery) : null;
}

/** Sessions by site, network, stall, model or car; those that charged longest first. */
export function powerGroups(judged: readonly JudgedSession[], by: PowerBy): { rows: PowerGroup[]; ungrouped: number } {
  const groups = grouped(judged, (j) => KEY[by](j.past));
  const rows = [...groups].flatMap(([key, of]) => (key === null ? [] : [groupOf(key, of)]));
  return { rows: rows.sort((a, b) => b.minutes - a.minutes || (a.key < b.key ? -1 : 1)), ungrouped: groups.get(null)?.length ?? 0 };
}

const sum = (values: readonly number[]): number => values.reduce((s, v) => s + v, 0);
function over(of: readonly JudgedSession[], minutes: (j: JudgedSession) => number | null): number | null {
  const told = of.flatMap((j) => {
    const m = minutes(j);
    return m === null ? [] : [{ m, took: j.took_min }];
  });
  return told.length === 0 ? null : sum(told.map((t) => t.m)) / sum(told.map((t) => t.took));
}

function groupOf(key: string, of: readonly JudgedSession[]): PowerGroup {
  const words = of.flatMap((j) => (j.word_min === null ? [] : [j.word_min / j.took_min])).sort((a, b) => a - b);
  const metered = of.flatMap(({ past: { looks } }) => (looks.kWh !== null && looks.charging_s ? [{ kWh: looks.kWh, h: looks.charging_s / 3600 }] : []));
  const peaks = of.flatMap((j) => j.past.looks.peak_kW ?? []);
  return {
    key,
    sessions: of.length,
    judged: words.length,
    keepsItsWord: over(of, (j) => j.word_min),
    median: words.length === 0 ? null : (quantiles(words, [0.5] as const)[0] as number),
    limits: medianLimits(words),
    least: words[0] ?? null,
    pace: over(of, (j) => j.car_min),
    mean_kW: metered.length === 0 ? null : sum(metered.map((m) => m.kWh)) / sum(metered.map((m) => m.h)),
    peak_kW: peaks.length === 0 ? null : Math.max(...peaks),
    minutes: sum(of.map((j) => j.took_min)),
  };
}

/**
 * Limits of the middle with at least 95 % confidence, whatever the figures' distribution: the order statistics between
 * which a fair coin's count lies. `null` under six. Source: W. R. Thompson, Ann. Math. Stat. 7 (1936), from memory.
 * @param sorted rising
 */
export function medianLimits(sorted: readonly number[]): [number, number] | null {
  const n = sorted.length;
  if (n < LEAST_FOR_LIMITS) return null;
  // By its logarithm: the chance of none of a thousand is smaller than any number that is kept.
  let [k, below, log] = [0, 0, n * Math.log(0.5)];
  // The most that can be left out at each end with no more than 2.5 % there.
  while (below + Math.exp(log) <= 0.025) {
    below += Math.exp(log);
    k += 1;
    log += Math.log((n - k + 1) / k);
  }
  return [sorted[k - 1] as number, sorted[n - k] as number];
}

const n2 = (x: number | null): string => (x === null ? '' : x.toFixed(2));
/** The same as CSV: units in the heading, what is not known empty. */
export const powerGroupsCsv = (rows: readonly PowerGroup[], nameOf: (key: string) => string, by: PowerBy, chosen = ''): string =>
  `${csvFormatRows([
    [
      by,
      'sessions',
      'judged',
      'keeps its word',
      'median',
      '95 % from',
      '95 % to',
      'least',
      'pace',
      'average (kW)',
      'peak (kW)',
      'charging (min)',
      ...onlyVisits(chosen).map(([head]) => head),
    ],
    ...rows.map((r) => [
      csvText(nameOf(r.key)),
      String(r.sessions),
      String(r.judged),
      n2(r.keepsItsWord),
      n2(r.median),
      n2(r.limits?.[0] ?? null),
      n2(r.limits?.[1] ?? null),
      n2(r.least),
      n2(r.pace),
      n2(r.mean_kW),
      n2(r.peak_kW),
      r.minutes.toFixed(1),
      ...onlyVisits(chosen).map(([, value]) => csvText(value)),
    ]),
  ])}\n`;

/** Fewer sessions of each of two say nothing about which is better. */
const LEAST_TO_TELL = 3;
/** What the rows come to, no surer than they are. */
export function powerSentence(rows: readonly PowerGroup[], nameOf: (key: string) => string, one: string): string {
  const told = rows.filter((r) => r.keepsItsWord !== null && r.judged >= LEAST_TO_TELL);
  if (rows.length === 0) return 'No session with two readings of the battery yet: take them at tens, and the stall can be held to its word.';
  if (told.length === 0) return `No ${one} has ${LEAST_TO_TELL} sessions yet by which its word could be told.`;
  const best = [...told].sort((a, b) => (b.keepsItsWord as number) - (a.keepsItsWord as number));
  const [first, last] = [best[0] as PowerGroup, best.at(-1) as PowerGroup];
  const share = (r: PowerGroup) => `${Math.round((r.keepsItsWord as number) * 100)} %`;
  if (told.length === 1) return `${nameOf(first.key)} kept its word for ${share(first)} of the minutes it took, by ${first.judged} sessions.`;
  const apart = first.limits && last.limits && first.limits[0] > last.limits[1];
  // The best and the worst of many were picked by looking: apart is a hint, no proof.
  return `${nameOf(first.key)} kept its word for ${share(first)} of the minutes, ${nameOf(last.key)} for ${share(last)}; ${
    apart
      ? `the limits of their middles lie apart, which is a hint where ${told.length} were looked at`
      : 'whether one is better cannot be told from so few yet'
  }.`;
}
