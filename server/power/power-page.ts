import type { RangeBy } from '@/core/power/bands';
import { matesOf } from '@/core/power/charge-conditions';
import { chargeOf } from '@/core/power/charge-of';
import { classesOf, curvesLearnt, curveToJudgeBy, type PastSession } from '@/core/power/past-sessions';
import { seriesOf } from '@/core/power/series';
import type { AroundSession } from '@/core/power/session-checks';
import type { CurveClass } from '@/core/power/session-looks';
import { type SessionPower, type StandsAt, sessionPower } from '@/core/power/session-power';
import { outletOf } from '@/core/power/setting-of';
import type { MileRecord, RecordFields } from '@/core/records/record-schema';
import { isId } from '@/core/units/id';
import type { Attempt } from '@/core/visit/attempts/attempt';
import { forCharging, paidOf } from '@/core/visit/billed';
import { deriveVisit, type Visit } from '@/core/visit/derive';
import { payloadProblem } from '@/core/visit/payloads';
import { seesAll } from '@/core/visit/private';
import type { Who } from '../accounts/who';
import { recordsOf, recordsWhere } from '../records/record-tables';
import { billCheck } from '../visits/bill-check';
import { eventsOfVisits } from '../visits/event-rows';
import { pastSessions } from './past-sessions';

/** Sessions of a car that are read to learn its curve: the newest. */
const MOST_PAST = 600;
/** Visits laid over one another at once. */
export const MOST_OVER = 5;

export type VisitPower = {
  visit: Visit;
  car: MileRecord<'car'> | null;
  siteName: string;
  stallName: (id: string | null) => string;
  stall: (id: string | null) => RecordFields<'stall'> | null;
  /** The outlet that an attempt was at, by its number; `null` where car or stall is not on file. */
  outletOf: (n: number) => StandsAt['outlet'] | null;
  sessions: SessionPower[];
  range: RangeBy;
  /** Of each attempt, by its number: the second rapid charge of a day is of another class than the first, in one visit too. */
  klassOf: (n: number) => CurveClass;
  /** kWh of the car's sessions before this visit, and what it was charged and should cost. */
  around: AroundSession;
};

/** A visit that this person may see whole, with the records its power hangs on; `null` otherwise. */
async function visitPower(who: Who, visitId: string, visit: Visit, past: (carId: string) => Promise<PastSession[]>): Promise<VisitPower> {
  const { householdId } = who;
  const stallIds = [...new Set(visit.attempts.flatMap((a) => a.stallId ?? []))];
  const [cars, sites, stalls, adapters] = await Promise.all([
    visit.carId ? recordsWhere(householdId, 'car', 'id', [visit.carId]) : [],
    visit.siteId ? recordsWhere(householdId, 'site', 'id', [visit.siteId]) : [],
    stallIds.length > 0 ? recordsWhere(householdId, 'stall', 'id', stallIds) : [],
    recordsOf(householdId, 'adapter'),
  ]);
  const atSite = visit.siteId ? await recordsWhere(householdId, 'stall', 'siteId', [visit.siteId]) : [];
  const car = cars[0] ?? null;
  const own = car ? await past(car.id) : [];
  const networkId = sites[0]?.fields.networkId ?? null;
  const classes = classesOf(own);
  const klassOf = (n: number): CurveClass => {
    const me = own.find((p) => p.visitId === visitId && p.n === n);
    return (me && classes.get(me)) ?? 'usual';
  };
  const learnt = curvesLearnt(own);
  const stands = (a: Attempt): StandsAt | null => {
    const stall = stalls.find((s) => s.id === a.stallId)?.fields;
    if (!stall || !car) return null;
    const adapter = adapters.find((x) => x.id === a.adapterId)?.fields ?? null;
    const mates = matesOf(a.stallId, stall.cabinet, atSite);
    const charge = chargeOf(a, visit);
    const outlet = outletOf(stall, car.fields, a.connectorId ?? null, adapter?.from ?? null, charge && seriesOf(charge).peak_kW);
    return { car: car.fields, stall, outlet, adapter, mates };
  };
  const range = { usableKWh: car?.fields.usableKWh ?? null, kWhPer100km: car?.fields.kWhPer100km ?? null };
  return {
    visit,
    car,
    siteName: sites[0]?.fields.name ?? 'Somewhere new',
    stallName: (id) => stalls.find((s) => s.id === id)?.fields.name ?? '',
    stall: (id) => stalls.find((s) => s.id === id)?.fields ?? null,
    outletOf: (n) => {
      const at = visit.attempts.find((a) => a.n === n);
      return at ? (stands(at)?.outlet ?? null) : null;
    },
    sessions: visit.attempts.flatMap((a) => {
      const charge = chargeOf(a, visit);
      if (!charge) return [];
      const soc = seriesOf(charge).soc?.y ?? [];
      const within = soc.length > 1 ? ([soc[0] as number, soc.at(-1) as number] as const) : null;
      const curve = car ? curveToJudgeBy(learnt(klassOf(a.n), networkId), car.fields.curve, within) : { points: [], by: null };
      return sessionPower(visit, a, stands(a), curve, range) ?? [];
    }),
    range,
    klassOf,
    around: {
      earlierKWh: own.flatMap((p) => (p.at < (visit.pulledInAt ?? visit.lastEventAt) && p.visitId !== visitId && p.looks.kWh !== null ? [p.looks.kWh] : [])),
      cost: await costOf(householdId, visit, sites, stalls),
    },
  };
}

/** What a visit was charged and should have cost by the price on file; `null` where not both are known. */
async function costOf(householdId: string, visit: Visit, sites: MileRecord<'site'>[], stalls: MileRecord<'stall'>[]): Promise<AroundSession['cost']> {
  const [site] = sites;
  const checked = site && (await billCheck(householdId, site, [], visit, stalls));
  const charged = paidOf(forCharging(visit.bills));
  if (!checked || 'unpriced' in checked || !charged.known || charged.value.currency !== checked.currency) return null;
  return { charged: charged.value.amount, expected: checked.total, currency: checked.currency };
}

/** The power of a visit, and of others to lay over it; those that cannot be seen or do not exist are left out. `null`: the visit itself. */
export async function powerPage(who: Who, visitId: string, over: readonly string[]): Promise<{ page: VisitPower; over: VisitPower[] } | null> {
  const ids = [...new Set([visitId, ...over.filter(isId)])].slice(0, 1 + MOST_OVER);
  if (!isId(visitId)) return null;
  const events = await eventsOfVisits(who.householdId, ids);
  const kept = new Map<string, Promise<PastSession[]>>();
  const past = (carId: string) => {
    const found = kept.get(carId) ?? pastSessions(who, { car: carId, time: 'handshake', mark: 'kW' }, MOST_PAST);
    kept.set(carId, found);
    return found;
  };
  const all = await Promise.all(
    ids.map(async (id) => {
      const own = events.get(id);
      if (!own) return null;
      const visit = deriveVisit(id, own, payloadProblem);
      return seesAll(visit, who.personId) ? visitPower(who, id, visit, past) : null;
    }),
  );
  const page = all[0];
  return page ? { page, over: all.slice(1).filter((v) => v !== null) } : null;
}
