import type { NextLeg } from '@/client/store/habits';
import { aroundNow, matesOf } from '@/core/power/charge-conditions';
import { chargeOf } from '@/core/power/charge-of';
import { compatibleStalls, type Way } from '@/core/power/compatible-stalls';
import { usedOnTheWay } from '@/core/power/consumption';
import { lastShown } from '@/core/power/last-shown';
import { isDC } from '@/core/power/most-kw';
import { seriesOf } from '@/core/power/series';
import { outletOf, settingOf } from '@/core/power/setting-of';
import type { CarOutlook, NextStop, SiteOutlook, StayAsked } from '@/core/power/stay-or-go';
import { costOfStaying, runningSession } from '@/core/tariff/cost-so-far';
import { compiledOf } from '@/core/tariff/tariff-object';
import { printDistance } from '@/core/units/print';
import { daysBetween, localDay } from '@/core/units/zoned';
import { chargingSoFar } from '@/core/visit/attempt-times';
import type { StayClock } from '@/core/visit/stay-clocks';
import type { Live, LiveFacts } from './live-facts';

/** By how much consumption differs from one drive to another. Common practice, no source. */
const CONSUMPTION = { low: 0.9, high: 1.15 };
const NOT_SEEN: SiteOutlook = { n: 0, startShare: 0.9, handshake_min: 1.5, loss_min: 15, pace: null, paced: 0, lastSeen: null };
/** What is to come, and what it was. */
const LIMITS: Record<StayClock['kind'], readonly [string, string]> = {
  max_stay: ['Max stay ends', 'Max stay ended'],
  overstay: ['Overstay fee begins', 'Overstay fee began'],
  idle_grace: ['Idle fee begins', 'Idle fee began'],
};

type Facts = Pick<LiveFacts, 'car' | 'stall' | 'charging' | 'adapter' | 'clocks' | 'tariff'>;
type State = Pick<Live, 'visit' | 'records' | 'outlooks' | 'lately' | 'dangers' | 'who'>;

/** What advice is asked about, from the phone's own copy; `null` where car, stall or readings are missing. @param now UTC ms */
export function adviceAsked({ visit, records, outlooks, lately, dangers, who }: State, facts: Facts, leg: NextLeg, now: number): StayAsked | null {
  const { car, stall, charging, adapter, tariff } = facts;
  const charge = charging && chargeOf(charging, visit);
  if (!car || !stall || !charging?.proof || !charge) return null;
  const { soc, power, peak_kW } = seriesOf(charge);
  const lastKW = charging.readings.findLast((r) => r.kW !== undefined && r.kW > 0)?.kW;
  const known = outlooks.cars[car.id];
  const curve = curveOf(known, car.fields.curve);
  const outlet = outletOf(stall.fields, car.fields, charging.connectorId ?? null, adapter?.fields.from ?? null, peak_kW);
  // What alternating current gives does not hang on the curve.
  const curved = curve.length > 0 || !isDC(outlet.connector);
  if (!soc || (!curved && lastKW === undefined)) return null;
  const atSite = records.stall.filter((s) => s.fields.siteId === stall.fields.siteId);
  const { setting, battery } = settingOf({
    car: car.fields,
    curve: curved ? curve : [[0, lastKW ?? 0]],
    stall: stall.fields,
    outlet,
    adapter: adapter?.fields ?? null,
    ...aroundNow(visit, charging, matesOf(stall.id, stall.fields.cabinet, atSite), stall.fields.state),
  });
  const arrival = visit.line.find((e) => e.kind === 'pulled_in')?.payload;
  const here = arrival?.odometerKm === undefined || arrival.socPct === undefined ? null : { odometerKm: arrival.odometerKm, socPct: arrival.socPct };
  const measured = here && known?.left ? usedOnTheWay(known.left, here, car.fields.usableKWh) : null;
  const uses = measured ?? car.fields.kWhPer100km;
  const drive = (km: number) => ({ km, min: (km / leg.kmh) * 60 });
  const place = records.site.find((s) => s.id === leg.next?.siteId);
  // Where the drive ends there, what charging there is like does not matter.
  const next = leg.next && leg.next.after_km > 0 && place ? nextStop(leg.next, place) : null;
  const km = leg.next ? leg.next.km : leg.km;
  const way = km === null ? null : { km, name: place ? `the way to ${place.fields.name}` : `the next ${printDistance(km, who.wishes.distance)}` };
  const levels = soc.x.map((s, i) => ({ min: s / 60, socPct: soc.y[i] as number }));
  const read = charging.readings.findLast((r) => r.socPct === levels.at(-1)?.socPct)?.mark.t ?? charging.proof.t;

  function nextStop(to: NonNullable<NextLeg['next']>, site: Live['records']['site'][number]): NextStop | null {
    if (!car) return null;
    const today = localDay(now, site.fields.zone);
    const stalls = records.stall.filter((s) => s.fields.siteId === to.siteId && !s.archived);
    const best = compatibleStalls(
      { car, adapters: records.adapter, means: records.means, enrolments: records.enrolment },
      { site, stalls, dangers },
      lately,
      today,
    )
      .filter((a) => a.use !== 'no' && a.kW !== null)
      .sort((a, b) => Number(b.use === 'yes') - Number(a.use === 'yes') || (b.kW as number) - (a.kW as number))[0];
    const there = stalls.find((s) => s.id === best?.stallId);
    const outlook = outlooks.sites[site.id] ?? NOT_SEEN;
    return {
      name: site.fields.name,
      stall: best && there ? chargedAt(car, there, best.way, records.adapter, curve) : 'no_stall',
      outlook,
      toThere: drive(to.km),
      thereToEnd: drive(to.after_km),
      direct: to.direct_km === null ? null : drive(to.direct_km),
      seenDaysAgo: outlook.lastSeen ? Math.max(0, daysBetween(outlook.lastSeen, today)) : null,
    };
  }

  const running = { ...charging, proof: charging.proof };
  const priced = tariff ? costOfStaying(compiledOf(tariff), runningSession(visit, running, Math.max(now, running.proof.t))) : null;
  return {
    setting,
    battery,
    curved,
    levels,
    shown: lastShown(charging, power),
    paused: charging.paused !== undefined,
    now_min: chargingSoFar(charging, now) / 60,
    readAgo_min: Math.max(0, now - read) / 60_000,
    connected_min: charging.plugged ? Math.max(0, (now - charging.plugged.t) / 60_000) : chargingSoFar(charging, now) / 60,
    kWhPer100km: uses,
    measured: measured !== null,
    kWhPer100kmRange: uses === null ? null : [uses * CONSUMPTION.low, uses * CONSUMPTION.high],
    reservePct: leg.reservePct,
    distance: who.wishes.distance,
    leg: way,
    fallback_km: leg.fallback_km,
    next,
    cost: priced && ((kWh, minutes, _, since) => priced(kWh, minutes, since)),
    deadlines: facts.clocks.map((c) => ({ why: LIMITS[c.kind][c.until < now ? 1 : 0], in_min: (c.until - now) / 60_000 })),
    spread: (setting.stall.kind === 'ac' ? known?.acSpread : known?.spread) ?? null,
  };
}

/** A stall of the next site as it would be charged at, alone: by its own losses, and through what adapter it takes. */
function chargedAt(
  car: Live['records']['car'][number],
  stall: Live['records']['stall'][number],
  way: Way | null,
  adapters: Live['records']['adapter'],
  curve: CarOutlook['curve'],
): NextStop['stall'] {
  const adapter = adapters.find((a) => a.id === way?.adapterId)?.fields ?? null;
  const { state } = stall.fields;
  const { setting, battery } = settingOf({
    car: car.fields,
    curve,
    stall: stall.fields,
    outlet: outletOf(stall.fields, car.fields, way?.connector ?? null, adapter?.from ?? null),
    adapter,
    paired: false,
    deratedKW: state?.is === 'derated' ? state.kW : null,
  });
  // What is read here is what this stall gives, and says nothing of what the car would take elsewhere.
  if (setting.stall.kind === 'dc' && curve.length === 0) return 'no_curve';
  return { stall: setting.stall, adapter: setting.adapter, efficiency: battery.efficiency };
}

/** The learnt curve where there is one, else the typed. */
function curveOf(known: CarOutlook | undefined, typed: CarOutlook['curve']): CarOutlook['curve'] {
  return known && known.curve.length > 0 ? known.curve : typed;
}
