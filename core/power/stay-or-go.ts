import type { DistanceUnit } from '../units/distance';
import type { RangeBy } from './bands';
import { type Battery, minutesFor } from './expected';
import { type LevelNeeded, levelNeeded } from './level-needed';
import type { Limits, Setting } from './limits';
import { limitsOf } from './limits';
import { type CostOf, type NextTen, nextTens } from './next-tens';
import { type Level, project, type Shown, type Spread } from './projection';
import { type LeaveSite, type WhenToLeave, whenToLeave } from './when-to-leave';

/** What the ledger knows of a site, shrunk towards its network's: `n` attempts of its own. */
export type SiteOutlook = {
  n: number;
  startShare: number;
  handshake_min: number;
  /** Minutes lost where a start failed. */
  loss_min: number;
  /** Part of the expected power that its stalls gave, by so many sessions; `null` by none. */
  pace: number | null;
  paced: number;
  /** Local day of the last visit, `null`: never seen. */
  lastSeen: string | null;
};
/** What a car has shown, for the phone: its curve and how projections of it held. */
export type CarOutlook = {
  curve: readonly (readonly [number, number])[];
  sessions: number;
  /** Of charges at direct current; `acSpread` of those at alternating, not yet known to phones that heard of it before. */
  spread: Spread | null;
  acSpread?: Spread | null;
  /** What odometer and battery showed when it left its last stop, as far as both were noted. */
  left?: { odometerKm: number; socPct: number } | null;
};
export type Outlooks = { sites: Readonly<Record<string, SiteOutlook>>; cars: Readonly<Record<string, CarOutlook>> };

export type NextStop = {
  name: string;
  /** What it would be charged at; or why nothing can be told of it: no curve of the car, or no stall on file that it can use. */
  stall: LeaveSite | 'no_curve' | 'no_stall';
  outlook: SiteOutlook;
  toThere: { km: number; min: number };
  thereToEnd: { km: number; min: number };
  /** Driving straight on, where the stop is an extra one; `null`: it is made anyway. */
  direct: { km: number; min: number } | null;
  /** Days since it was seen, `null` never. */
  seenDaysAgo: number | null;
};
export type StayAsked = {
  setting: Setting;
  battery: Battery;
  /** False: no curve and no history where direct current is charged; power is this session's last. */
  curved: boolean;
  /** Levels read in this session, rising. */
  levels: readonly Level[];
  /** Power as it was shown last. */
  shown: Shown | null;
  /** No power just now: what is said is for when it is back. */
  paused: boolean;
  /** On the charging clock. */
  now_min: number;
  /** How long ago the last level was read, the pauses too. */
  readAgo_min: number;
  connected_min: number;
  kWhPer100km: number | null;
  /** On the way here, and not the usual. */
  measured?: boolean;
  kWhPer100kmRange: readonly [number, number] | null;
  reservePct: number;
  /** In which ways are told. */
  distance: DistanceUnit;
  /** The way to be driven from here; with a next stop the way to it. */
  leg: { km: number; name: string } | null;
  /** From the end of that leg. */
  fallback_km: number | null;
  next: NextStop | null;
  cost: CostOf;
  deadlines: readonly { why: string; in_min: number }[];
  spread: Spread | null;
};

/** Minutes that do not matter: do as you like. */
const EITHER_MIN = 2;
/** A site not seen for so many days is not told to be gone to. */
export const UNSEEN_DAYS = 30;

export type StayAdvice = {
  nowPct: number;
  /** The last level that was read. */
  readPct: number;
  /** What is said hangs on a level that nobody has read yet. */
  unread: boolean;
  pace: number;
  /** Of what is expected now, and by what. */
  kW: number | null;
  atBest: boolean;
  /** The first and last level of the car's curve; `null` each where none enters. */
  curve: Pick<Limits, 'curveFrom' | 'curveTo'>;
  need: LevelNeeded | null;
  leave: WhenToLeave | null;
  rows: readonly NextTen[];
  /** Minutes from now until the battery is so full; `null`: it never gets there. */
  minutesTo: (socPct: number) => number | null;
  /** When each level should stand on the screen, minutes from now, and the band it lies in. */
  projected: readonly { socPct: number; min: number; low: number; high: number }[];
  /** What it comes to. `pct`: the level; `min`: minutes until then. */
  says:
    | { is: 'stay'; pct: number; min: number; why: 'leg' | 'next' }
    /** `unseen`: nobody of the household was there lately, so that nothing is promised. */
    | { is: 'go'; why: 'leg' | 'next'; unseen: boolean }
    | { is: 'either'; minutes: number }
    | { is: 'cannot'; shortByPct: number }
    | { is: 'about'; pct: number; min: number }
    | { is: 'slow' };
  /** A limit of the stay that comes before that level; without one the first that is past, its minutes negative. */
  conflict: { why: string; in_min: number } | null;
};

/** What most charges go to where nothing else is asked. */
const USUAL_PCT = 80;
/** Less is no staying. */
const LEAST_STAY_PCT = 1;
/** From this level on the battery is called full. */
export const FULL_PCT = 99.5;
/** A screen shows whole per cents: nearer than this a level was read. */
const READ_SLACK = 0.5;

/**
 * Whether to stay or to go, from what was read in this session: by the next leg, by a known next site, or only when the
 * battery will be how full. `null` under two readings: nothing is said. Every reading corrects it.
 */
export function stayOrGo(asked: StayAsked): StayAdvice | null {
  const { battery, levels, spread } = asked;
  if (levels.length < 2) return null;
  const limits = limitsOf(asked.setting);
  const found = project(limits, battery, levels, asked.now_min, asked.shown);
  if (!found || limits.pieces.length === 0) return null;
  const { nowPct, pace } = found;
  const readPct = (levels.at(-1) as Level).socPct;
  const range: RangeBy = { usableKWh: battery.usableKWh, kWhPer100km: asked.kWhPer100km };
  const minutesTo = (pct: number) => (pct <= nowPct ? 0 : minutesFor(found.limits, nowPct, pct, battery));
  const banded = (min: number) => ({ low: min * (spread?.low ?? 1), high: min * (spread?.high ?? 1) });
  const projected = [];
  for (let pct = nowPct; pct <= 100; pct = Math.min(pct + 2, pct < 100 ? 100 : 101)) {
    const min = minutesTo(pct);
    if (min === null) break;
    projected.push({ socPct: pct, min, ...banded(min) });
  }
  const need =
    asked.leg && asked.kWhPer100km
      ? levelNeeded(found.limits, battery, nowPct, {
          leg_km: asked.leg.km,
          ...(asked.fallback_km === null ? {} : { fallback_km: asked.fallback_km }),
          kWhPer100km: asked.kWhPer100km,
          ...(asked.kWhPer100kmRange ? { kWhPer100kmRange: asked.kWhPer100kmRange } : {}),
          reservePct: asked.reservePct,
          deadlines: asked.deadlines,
          arriveFromPct: nowPct,
        })
      : null;
  const leave = asked.next && typeof asked.next.stall === 'object' && asked.kWhPer100km ? leaveFor(asked, asked.next, asked.next.stall, nowPct, pace) : null;
  const says = verdict(need, leave, asked.next, nowPct, minutesTo);
  const deadlines = [...asked.deadlines].sort((a, b) => a.in_min - b.in_min);
  const until = says.is === 'stay' || says.is === 'about' ? says.min : 0;
  return {
    nowPct,
    readPct,
    unread: readPct + READ_SLACK < (levelSaid(says, need, leave, nowPct) ?? 0),
    pace,
    kW: found.limits.kWAt(nowPct)?.kW ?? null,
    atBest: !asked.curved,
    curve: asked.curved ? { curveFrom: limits.curveFrom, curveTo: limits.curveTo } : { curveFrom: null, curveTo: null },
    need,
    leave,
    rows: nextTens(found.limits, battery, { socPct: nowPct, connected_min: asked.connected_min }, asked.cost, range),
    minutesTo,
    projected,
    says,
    conflict: deadlines.find((d) => d.in_min >= 0 && d.in_min < until) ?? deadlines.find((d) => d.in_min < 0) ?? null,
  };
}

function leaveFor(asked: StayAsked, next: NextStop, stall: LeaveSite, nowPct: number, pace: number): WhenToLeave {
  const { outlook } = next;
  return whenToLeave({
    car: { ...asked.setting.car, usableKWh: asked.battery.usableKWh },
    here: { stall: asked.setting.stall, adapter: asked.setting.adapter, pace, efficiency: asked.battery.efficiency },
    there: { ...stall, pace: outlook.pace ?? 1, handshake_min: outlook.handshake_min, startShare: outlook.startShare, loss_min: outlook.loss_min },
    nowPct,
    mode: next.direct ? 'extra' : 'anyway',
    legs: { toThere: next.toThere, thereToEnd: next.thereToEnd, direct: next.direct ?? undefined },
    kWhPer100km: asked.kWhPer100km as number,
    reservePct: asked.reservePct,
    fallback_km: asked.fallback_km,
  });
}

/** The level that must have been reached for what is said to hold now; `null` where nothing is said of now. */
function levelSaid(says: StayAdvice['says'], need: LevelNeeded | null, leave: WhenToLeave | null, nowPct: number): number | null {
  const now = leave?.best ? (says.is === 'either' ? leave.goNow : leave.best) : null;
  if (says.is === 'go' || says.is === 'either') return now?.how === 'direct' ? (leave?.neededDirect ?? null) : (leave?.neededThere ?? need?.neededPct ?? null);
  return says.is === 'slow' && nowPct >= FULL_PCT ? FULL_PCT : null;
}

function verdict(
  need: LevelNeeded | null,
  leave: WhenToLeave | null,
  next: NextStop | null,
  nowPct: number,
  minutesTo: (pct: number) => number | null,
): StayAdvice['says'] {
  if (leave && next) {
    // The battery would hold enough, but neither post brings it that far.
    if (!leave.best) return leave.shortByPct > 0 ? { is: 'cannot', shortByPct: leave.shortByPct } : { is: 'slow' };
    const { best } = leave;
    // Going at once and staying as long as most do, where both can be done: where neither costs minutes, neither is told.
    const stays = leave.totalAt.filter((t) => t.leavePct > nowPct + LEAST_STAY_PCT);
    const usual = stays.findLast((t) => t.leavePct <= USUAL_PCT) ?? stays[0];
    const usualMin = usual && Math.min(usual.via ?? Number.POSITIVE_INFINITY, usual.direct ?? Number.POSITIVE_INFINITY);
    const worst = leave.goNow && usualMin !== undefined ? Math.max(leave.goNow.total_min, usualMin) - best.total_min : null;
    if (worst !== null && worst <= EITHER_MIN) return { is: 'either', minutes: worst };
    if (leave.advice === 'go_now') return { is: 'go', why: 'next', unseen: next.seenDaysAgo === null || next.seenDaysAgo > UNSEEN_DAYS };
    return { is: 'stay', pct: best.leavePct, min: minutesTo(best.leavePct) ?? Number.POSITIVE_INFINITY, why: 'next' };
  }
  if (need) {
    if (!need.feasible) return { is: 'cannot', shortByPct: need.shortByPct };
    if (need.enoughNow) return { is: 'go', why: 'leg', unseen: false };
    return need.stayUntil_min === null ? { is: 'slow' } : { is: 'stay', pct: need.neededPct, min: need.stayUntil_min, why: 'leg' };
  }
  const pct = nowPct < USUAL_PCT - 1 ? USUAL_PCT : 100;
  const min = minutesTo(pct);
  return min === null || nowPct >= FULL_PCT ? { is: 'slow' } : { is: 'about', pct, min };
}
