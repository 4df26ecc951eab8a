import type { PowerCurve } from './limits';
import { limitsOf } from './limits';
import { type CurveSession, type OwnCurve, ownCurve } from './own-curve';
import type { CurveClass, SessionLooks } from './session-looks';
import type { CurveBy } from './session-power';
import { type AtStall, settingOf } from './setting-of';

/** A session of the ledger with what it stood at. `stands`: car, stall and adapter on file, `null` where one is not. */
export type PastSession = {
  visitId: string;
  n: number;
  /** Local day of the visit's arrival. */
  day: string;
  at: number;
  networkId: string | null;
  siteId: string | null;
  stallId: string | null;
  model: string | null;
  carId: string | null;
  looks: SessionLooks;
  stands: Omit<AtStall, 'curve' | 'paired' | 'deratedKW'> | null;
};

/** So much in the battery counts as a rapid charge before: less does not warm it. Common practice, no source. */
const RAPID_KWH = 5;
/** At or above it a charge is rapid in British usage. */
const RAPID_KW = 43;

/** The class of each session: a second rapid charge of the day is one whatever the weather. @param past of one car, in any order */
export function classesOf(past: readonly PastSession[]): Map<PastSession, CurveClass> {
  const out = new Map<PastSession, CurveClass>();
  const rapidOn = new Map<string, number>();
  for (const p of [...past].sort((a, b) => a.at - b.at || a.n - b.n)) {
    const key = `${p.carId} ${p.day}`;
    out.set(p, (rapidOn.get(key) ?? 0) > 0 ? 'second' : p.looks.klass);
    if ((p.looks.kWh ?? 0) >= RAPID_KWH && (p.looks.peak_kW ?? 0) >= RAPID_KW) rapidOn.set(key, (rapidOn.get(key) ?? 0) + 1);
  }
  return out;
}

/**
 * What a car takes, learnt from its rapid charges: they are looked through once, and asked for each class and network.
 * @param past of one car
 * @returns the curve of a class; `except`: the network whose stall is to be judged, its own sessions do not speak for it
 */
export function curvesLearnt(past: readonly PastSession[]): (klass: CurveClass, except?: string | null) => OwnCurve {
  const classes = classesOf(past);
  const taught = past.flatMap((p) => {
    const { stands } = p;
    if (!stands || p.looks.looks.length === 0) return [];
    const { setting } = settingOf({ ...stands, curve: [], paired: false, deratedKW: null });
    if (setting.stall.kind !== 'dc') return [];
    const others = limitsOf(setting);
    const session: CurveSession = {
      id: `${p.visitId} ${p.n}`,
      class: classes.get(p) ?? 'usual',
      hindered: p.looks.hindered,
      readings: p.looks.looks.map(([t_s, socPct, kW]) => ({ t_s, socPct, kW, otherLimitKW: others.kWAt(socPct)?.kW ?? null })),
    };
    return [{ networkId: p.networkId, session }];
  });
  return (klass, except = null) =>
    ownCurve(
      taught.flatMap(({ networkId, session }) => (except !== null && networkId === except ? [] : [session])),
      klass,
    );
}

/** The same, asked once. */
export const learntCurve = (past: readonly PastSession[], klass: CurveClass, except: string | null = null): OwnCurve => curvesLearnt(past)(klass, except);

/** A learnt curve, and below its first and above its last point what was typed: no session has shown it, somebody knows it. */
export function joinedCurve(learnt: PowerCurve, typed: PowerCurve): PowerCurve {
  const [first, last] = [learnt[0]?.[0], learnt.at(-1)?.[0]];
  if (first === undefined || last === undefined) return typed;
  return [...typed.filter(([pct]) => pct < first), ...learnt, ...typed.filter(([pct]) => pct > last)];
}

/** Fewer points are no curve. */
const LEAST_POINTS = 3;
export const isLearnt = ({ curve }: Pick<OwnCurve, 'curve'>): boolean => curve.length >= LEAST_POINTS;
/** The best that is known of what a car takes: what it has shown, joined with what was typed; that alone where it has shown too little. */
export const curveKnown = (learnt: Pick<OwnCurve, 'curve'>, typed: PowerCurve): PowerCurve => (isLearnt(learnt) ? joinedCurve(learnt.curve, typed) : typed);

/** How far beyond its points a learnt curve may be held level for judging, per cent. */
const REACH_PCT = 10;

/**
 * The curve that a session is judged by: the learnt one of its class where it covers what was charged, else the typed one, else none.
 * @param within the levels charged
 */
export function curveToJudgeBy(learnt: OwnCurve, typed: PowerCurve, within: readonly [number, number] | null): { points: PowerCurve; by: CurveBy } {
  const [first, last] = [learnt.curve[0]?.[0], learnt.curve.at(-1)?.[0]];
  if (within && first !== undefined && last !== undefined && isLearnt(learnt) && first - REACH_PCT <= within[0] && last + REACH_PCT >= within[1])
    return { points: joinedCurve(learnt.curve, typed), by: { from: 'learnt', sessions: learnt.sessionsUsed.length } };
  return typed.length > 0 ? { points: typed, by: { from: 'typed' } } : { points: [], by: null };
}
