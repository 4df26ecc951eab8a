import { type Battery, kWIn, minutesFor } from './expected';
import { legPctOf } from './level-needed';
import { type Limits, limitsOf, type Setting, voltsAtStall } from './limits';
import { chargeCost, type SimplePrice } from './simple-price';

const SLACK = 1e-9;
/** Levels whose whole way takes within so many minutes of the best are as good. */
const AS_GOOD_MIN = 0.05;
/** Money differs from half a cent on. */
const SAME_MONEY = 0.005;

/** A stall as it can be reckoned with. @see expectedStretch for pace and efficiency */
export type LeaveSite = Omit<Setting, 'car'> & { pace?: number | undefined; efficiency?: number | undefined; price?: SimplePrice | null | undefined };
export type Drive = { km: number; min: number };
export type LeaveAsked = {
  car: Setting['car'] & { usableKWh: number };
  here: LeaveSite;
  /** `loss_min`: what a failed start there costs, at a share of starts that succeed. */
  there: LeaveSite & { handshake_min: number; startShare: number; loss_min: number };
  nowPct: number;
  /** Whether the next stop is made in any case, or competes with driving straight on. */
  mode: 'anyway' | 'extra';
  legs: { toThere: Drive; thereToEnd: Drive; direct?: Drive | undefined };
  kWhPer100km: number;
  reservePct: number;
  /** To what would do should the next stop fail, from there: one arrives there with no less. */
  fallback_km?: number | null | undefined;
  stepPct?: number | undefined;
  connected_min?: number | undefined;
};
export type LeavePlan = { how: 'via' | 'direct'; leavePct: number; total_min: number; money: number | null };
export type WhenToLeave = {
  legPct: number;
  neededThere: number;
  chargeThereTo: number;
  neededDirect: number | null;
  overhead_min: number;
  bestVia: LeavePlan | null;
  bestDirect: LeavePlan | null;
} & (
  | { best: null; shortByPct: number }
  | {
      best: LeavePlan;
      /** Leaving now, the quicker of its ways; `null`: with what is in the battery it cannot be done. */
      goNow: LeavePlan | null;
      /** Levels around the best that are as good. */
      leaveOk: readonly [number, number];
      saving_min: number | null;
      advice: 'go_now' | 'stay_until';
      /** Leaving at 80 %, and what that costs against the best; `null` above it. */
      habit80: { feasible: false } | { feasible: true; total_min: number; costs_min: number } | null;
      /** Leave when power here falls below power there on arrival. It goes wrong where the curve dips and recovers. */
      rule: { leavePct: number; kWHere: number; kWThere: number; total_min: number; leaveBelowA: number | null; costs_min: number } | null;
      money: { ofFastest: number; cheapest: LeavePlan & { money: number }; disagree: boolean } | null;
      totalAt: { leavePct: number; via: number | null; direct: number | null }[];
    }
);

type Way = {
  asked: LeaveAsked;
  here: Limits;
  there: Limits;
  need: Pick<WhenToLeave, 'legPct' | 'neededThere' | 'chargeThereTo' | 'neededDirect' | 'overhead_min'>;
  /** Leaving later, nothing would be charged there. */
  latestVia: number;
};

const batteryOf = ({ car }: LeaveAsked, { efficiency }: LeaveSite): Battery => ({ usableKWh: car.usableKWh, efficiency });
/** Charging at one of the two, none when there already. */
function charge(way: Way, site: 'here' | 'there', from: number, to: number): { minutes: number; kWh: number } | null {
  if (to <= from + SLACK) return { minutes: 0, kWh: 0 };
  const at = way.asked[site];
  const minutes = minutesFor(way[site], from, to, batteryOf(way.asked, at), at.pace);
  return minutes === null ? null : { minutes, kWh: (way.asked.car.usableKWh * (to - from)) / 100 / (at.efficiency ?? 1) };
}
const priced = ({ asked }: Way): boolean => Boolean(asked.here.price ?? asked.there.price);

function viaAt(way: Way, x: number): LeavePlan | null {
  const { asked, need } = way;
  if (need.chargeThereTo > 100 + SLACK || x < need.neededThere - SLACK || x < asked.nowPct - SLACK || x > way.latestVia + SLACK) return null;
  const [here, there] = [charge(way, 'here', asked.nowPct, x), charge(way, 'there', x - need.legPct, Math.min(100, need.chargeThereTo))];
  if (!here || !there) return null;
  const total_min = here.minutes + asked.legs.toThere.min + need.overhead_min + there.minutes + asked.legs.thereToEnd.min;
  const { price } = asked.there;
  const money = moneyHere(way, here) + (price?.sessionFee ?? 0) + (price?.perKWh ?? 0) * there.kWh + (price?.perMin ?? 0) * there.minutes;
  return { how: 'via', leavePct: x, total_min, money: priced(way) ? money : null };
}
function directAt(way: Way, x: number): LeavePlan | null {
  const { asked, need } = way;
  const { direct } = asked.legs;
  if (!direct || need.neededDirect === null || x < need.neededDirect - SLACK || x < asked.nowPct - SLACK || x > 100 + SLACK) return null;
  const here = charge(way, 'here', asked.nowPct, x);
  return here && { how: 'direct', leavePct: x, total_min: here.minutes + direct.min, money: priced(way) ? moneyHere(way, here) : null };
}
const moneyHere = ({ asked }: Way, { kWh, minutes }: { kWh: number; minutes: number }): number =>
  chargeCost(asked.here.price ?? {}, kWh, minutes, asked.connected_min ?? 0);

/** Now, every step of the battery, and the levels at which something changes. */
function candidates({ asked, need }: Way): number[] {
  const step = asked.stepPct ?? 1;
  const steps = Array.from({ length: Math.floor(100 / step + SLACK) + 1 }, (_, k) => k * step);
  // Those that no plan may leave at are left out by the plans themselves.
  const marks = [need.neededThere, need.chargeThereTo + need.legPct, need.neededDirect ?? asked.nowPct];
  return [...new Set([asked.nowPct, ...steps, ...marks])].sort((a, b) => a - b);
}

const quickest = (plans: readonly LeavePlan[]): LeavePlan | null =>
  plans.reduce<LeavePlan | null>((least, p) => (least && least.total_min <= p.total_min + SLACK ? least : p), null);

/**
 * At which level to leave for the next stall: every level is tried and the whole way timed, driving, handshake and the
 * starts expected to fail among it; the two sites are told apart by pace and efficiency of their own. Charging there goes
 * exactly to what the last leg needs. Of plans that take the same the lower level is taken, and driving straight on.
 */
export function whenToLeave(asked: LeaveAsked): WhenToLeave {
  const pct = (drive: Drive) => legPctOf(drive.km, asked.kWhPer100km, asked.car.usableKWh);
  const legPct = pct(asked.legs.toThere);
  const direct = asked.mode === 'extra' ? asked.legs.direct : undefined;
  const need = {
    legPct,
    neededThere: Math.max(asked.reservePct, legPctOf(asked.fallback_km ?? 0, asked.kWhPer100km, asked.car.usableKWh)) + legPct,
    chargeThereTo: asked.reservePct + pct(asked.legs.thereToEnd),
    neededDirect: direct ? asked.reservePct + pct(direct) : null,
    overhead_min: asked.there.handshake_min + (1 - asked.there.startShare) * asked.there.loss_min,
  };
  const setting = (site: LeaveSite): Setting => ({ car: asked.car, stall: site.stall, adapter: site.adapter });
  const latestVia = Math.max(asked.nowPct, Math.min(100, Math.max(need.neededThere, need.chargeThereTo + legPct)));
  const way: Way = { asked, here: limitsOf(setting(asked.here)), there: limitsOf(setting(asked.there)), need, latestVia };
  const levels = candidates(way);
  const vias = levels.flatMap((x) => viaAt(way, x) ?? []);
  const directs = levels.flatMap((x) => directAt(way, x) ?? []);
  const [bestVia, bestDirect] = [quickest(vias), quickest(directs)];
  const found = { ...need, bestVia, bestDirect };
  const best = bestVia && bestDirect ? (bestDirect.total_min <= bestVia.total_min + SLACK ? bestDirect : bestVia) : (bestVia ?? bestDirect);
  if (!best) {
    const lacks = [Math.max(need.neededThere, need.chargeThereTo), ...(need.neededDirect === null ? [] : [need.neededDirect])];
    return { ...found, best: null, shortByPct: Math.max(0, Math.min(...lacks) - 100) };
  }
  const at80 = asked.nowPct > 80 + SLACK ? null : quickest([directAt(way, 80), viaAt(way, 80)].flatMap((p) => p ?? []));
  return {
    ...found,
    best,
    goNow: quickest([directAt(way, asked.nowPct), viaAt(way, asked.nowPct)].flatMap((p) => p ?? [])),
    leaveOk: asGood(best, best.how === 'via' ? vias : directs),
    saving_min: bestVia && bestDirect ? bestDirect.total_min - bestVia.total_min : null,
    advice: best.leavePct <= asked.nowPct + SLACK ? 'go_now' : 'stay_until',
    habit80:
      asked.nowPct > 80 + SLACK ? null : at80 ? { feasible: true, total_min: at80.total_min, costs_min: at80.total_min - best.total_min } : { feasible: false },
    rule: asked.mode === 'anyway' ? threshold(way, best) : null,
    money: priced(way) ? byMoney(best, [...directs, ...vias]) : null,
    totalAt: tensFrom(asked.nowPct).flatMap((leavePct) => {
      const [via, straight] = [viaAt(way, leavePct)?.total_min ?? null, directAt(way, leavePct)?.total_min ?? null];
      return via === null && straight === null ? [] : [{ leavePct, via, direct: straight }];
    }),
  };
}

const tensFrom = (now: number): number[] => {
  const first = Math.ceil(now / 10 - SLACK) * 10;
  return Array.from({ length: Math.max(0, (100 - first) / 10 + 1) }, (_, k) => first + 10 * k);
};

/** The unbroken run of levels around the best whose whole way is as short. */
function asGood(best: LeavePlan, plans: readonly LeavePlan[]): [number, number] {
  const at = plans.indexOf(best);
  const good = (i: number) => (plans[i]?.total_min ?? Number.POSITIVE_INFINITY) <= best.total_min + AS_GOOD_MIN;
  let [lo, hi] = [at, at];
  while (good(lo - 1)) lo -= 1;
  while (good(hi + 1)) hi += 1;
  return [plans[lo]?.leavePct as number, plans[hi]?.leavePct as number];
}

function byMoney(best: LeavePlan, plans: readonly LeavePlan[]) {
  type Priced = LeavePlan & { money: number };
  const all = plans.filter((p): p is Priced => p.money !== null);
  const order = (a: Priced, b: Priced) =>
    Math.abs(a.money - b.money) > SLACK ? a.money - b.money : Math.abs(a.total_min - b.total_min) > SLACK ? a.total_min - b.total_min : a.leavePct - b.leavePct;
  const cheapest = all.reduce((least, p) => (order(p, least) < 0 ? p : least));
  const ofFastest = best.money as number;
  return { ofFastest, cheapest, disagree: cheapest.money < ofFastest - SAME_MONEY };
}

/** The first level from which on power here is below power there on arrival. */
function threshold(way: Way, best: LeavePlan) {
  const { asked, need } = way;
  const [paceHere, paceThere] = [asked.here.pace ?? 1, asked.there.pace ?? 1];
  const lower = Math.max(asked.nowPct, need.neededThere);
  const upper = way.latestVia;
  const marks = [lower, upper, ...way.here.pieces.map((p) => p.from), ...way.there.pieces.map((p) => p.from + need.legPct)];
  const sorted = [...new Set(marks.filter((s) => s >= lower && s <= upper))].sort((a, b) => a - b);
  // What holds from a level on, read at another of the same piece.
  const kWOf = (limits: Limits, pace: number, from: number, s: number) => {
    const piece = limits.pieces.find((p) => from >= p.from - SLACK && from < p.to - SLACK) ?? limits.pieces.at(-1);
    return piece ? pace * kWIn(piece, s) : 0;
  };
  const lack = (from: number, s: number) => kWOf(way.here, paceHere, from, s) - kWOf(way.there, paceThere, from - need.legPct, s - need.legPct);
  let leavePct = upper;
  for (const [i, from] of sorted.entries()) {
    const to = sorted[i + 1] ?? from;
    const [d0, d1] = [lack(from, from), lack(from, to)];
    if (d0 < -SLACK) leavePct = from;
    else if (d1 < -SLACK) leavePct = from + ((to - from) * d0) / (d0 - d1);
    else continue;
    break;
  }
  const plan = viaAt(way, leavePct);
  if (!plan) return null;
  const kWHere = kWOf(way.here, paceHere, leavePct, leavePct);
  const kWThere = kWOf(way.there, paceThere, leavePct - need.legPct, leavePct - need.legPct);
  const volts = asked.here.stall.kind === 'dc' ? voltsAtStall({ car: asked.car, stall: asked.here.stall, adapter: asked.here.adapter }, leavePct) : null;
  return {
    leavePct,
    kWHere,
    kWThere,
    total_min: plan.total_min,
    leaveBelowA: volts ? (kWThere * 1000) / volts : null,
    costs_min: plan.total_min - best.total_min,
  };
}
