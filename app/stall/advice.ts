import type { NextLeg } from '@/client/store/habits';
import { aroundNow, matesOf } from '@/core/power/charge-conditions';
import { chargeOf } from '@/core/power/charge-of';
import { compatibleStalls } from '@/core/power/compatible-stalls';
import { usedOnTheWay } from '@/core/power/consumption';
import { seriesOf } from '@/core/power/series';
import { outletOf, settingOf } from '@/core/power/setting-of';
import type { CarOutlook, NextStop, SiteOutlook, StayAsked } from '@/core/power/stay-or-go';
import { costOfStaying, runningSession } from '@/core/tariff/cost-so-far';
import { compiledOf } from '@/core/tariff/tariff-object';
import { localDay } from '@/core/units/zoned';
import { chargingSoFar } from '@/core/visit/attempt-times';
import type { StayClock } from '@/core/visit/stay-clocks';
import type { Live, LiveFacts } from './live-facts';

/** By how much consumption differs from one drive to another. Common practice, no source. */
const CONSUMPTION = { low: 0.9, high: 1.15 };
/** Fewer points are no curve. */
const LEAST_POINTS = 3;
const NOT_SEEN: SiteOutlook = { n: 0, startShare: 0.9, handshake_min: 1.5, loss_min: 15, pace: null, paced: 0, lastSeen: null };
const LIMITS: Record<StayClock['kind'], string> = { max_stay: 'Max stay ends', overstay: 'Overstay fee begins', idle_grace: 'Idle fee begins' };

type Facts = Pick<LiveFacts, 'car' | 'stall' | 'charging' | 'adapter' | 'clocks' | 'tariff'>;
type State = Pick<Live, 'visit' | 'records' | 'outlooks' | 'lately' | 'dangers'>;

/** What advice is asked about, from the phone's own copy; `null` where car, stall or readings are missing. @param now UTC ms */
export function adviceAsked({ visit, records, outlooks, lately, dangers }: State, facts: Facts, leg: NextLeg, now: number): StayAsked | null {
  const { car, stall, charging, adapter, tariff } = facts;
  const charge = charging && chargeOf(charging, visit);
  if (!car || !stall || !charging?.proof || !charge) return null;
  const { soc } = seriesOf(charge);
  const lastKW = charging.readings.findLast((r) => r.kW !== undefined && r.kW > 0)?.kW;
  const known = outlooks.cars[car.id];
  const curve = curveOf(known, car.fields.curve);
  if (!soc || (curve.length === 0 && lastKW === undefined)) return null;
  const atSite = records.stall.filter((s) => s.fields.siteId === stall.fields.siteId);
  const atCar = (points: typeof curve) => ({
    car: car.fields,
    curve: points.length > 0 ? points : ([[0, lastKW ?? 0]] as const),
  });
  const { setting, battery } = settingOf({
    ...atCar(curve),
    stall: stall.fields,
    outlet: outletOf(stall.fields, car.fields, charging.connectorId ?? null, adapter?.fields.from ?? null),
    adapter: adapter?.fields ?? null,
    ...aroundNow(visit, charging, matesOf(stall.id, stall.fields.cabinet, atSite)),
  });
  const arrival = visit.line.find((e) => e.kind === 'pulled_in')?.payload;
  const here = arrival?.odometerKm === undefined || arrival.socPct === undefined ? null : { odometerKm: arrival.odometerKm, socPct: arrival.socPct };
  const measured = here && known?.left ? usedOnTheWay(known.left, here, car.fields.usableKWh) : null;
  const uses = measured ?? car.fields.kWhPer100km;
  const drive = (km: number) => ({ km, min: (km / leg.kmh) * 60 });
  const next = leg.next ? nextStop(leg.next) : null;

  function nextStop(to: NonNullable<NextLeg['next']>): NextStop | null {
    const site = records.site.find((s) => s.id === to.siteId);
    if (!site || !car) return null;
    const stalls = records.stall.filter((s) => s.fields.siteId === to.siteId && !s.archived);
    const best = compatibleStalls(
      { car, adapters: records.adapter, means: records.means, enrolments: records.enrolment },
      { site, stalls, dangers },
      lately,
      localDay(now, site.fields.zone),
    )
      .filter((a) => a.use !== 'no' && a.kW !== null)
      .sort((a, b) => Number(b.use === 'yes') - Number(a.use === 'yes') || (b.kW as number) - (a.kW as number))[0];
    const there = stalls.find((s) => s.id === best?.stallId);
    if (!best || !there) return null;
    const through = records.adapter.find((a) => a.id === best.way?.adapterId)?.fields ?? null;
    const at = settingOf({
      ...atCar(curve),
      stall: there.fields,
      outlet: outletOf(there.fields, car.fields, best.way?.connector ?? null, through?.from ?? null),
      adapter: through,
      paired: false,
      deratedKW: there.fields.state?.is === 'derated' ? there.fields.state.kW : null,
    }).setting;
    const outlook = outlooks.sites[site.id] ?? NOT_SEEN;
    return {
      name: site.fields.name,
      stall: { stall: at.stall, adapter: at.adapter },
      outlook,
      toThere: drive(to.km),
      thereToEnd: drive(to.after_km),
      direct: to.direct_km === null ? null : drive(to.direct_km),
      seenDaysAgo: outlook.lastSeen ? Math.max(0, Math.round((now - Date.parse(`${outlook.lastSeen}T12:00:00Z`)) / 86_400_000)) : null,
    };
  }

  const running = { ...charging, proof: charging.proof };
  const priced = tariff ? costOfStaying(compiledOf(tariff), runningSession(visit, running, Math.max(now, running.proof.t))) : null;
  return {
    setting,
    battery,
    curved: curve.length > 0,
    levels: soc.x.map((s, i) => ({ min: s / 60, socPct: soc.y[i] as number })),
    now_min: chargingSoFar(charging, now) / 60,
    connected_min: charging.plugged ? Math.max(0, (now - charging.plugged.t) / 60_000) : chargingSoFar(charging, now) / 60,
    kWhPer100km: uses,
    measured: measured !== null,
    kWhPer100kmRange: uses === null ? null : [uses * CONSUMPTION.low, uses * CONSUMPTION.high],
    reservePct: leg.reservePct,
    leg: leg.km === null ? null : { km: leg.km, name: `the next ${Math.round(leg.km)} km` },
    fallback_km: leg.fallback_km,
    next,
    cost: priced && ((kWh, minutes, _, since) => priced(kWh, minutes, since)),
    deadlines: facts.clocks.map((c) => ({ why: LIMITS[c.kind], in_min: (c.until - now) / 60_000 })),
    spread: known?.spread ?? null,
  };
}

/** The learnt curve where there is one, else the typed. */
function curveOf(known: CarOutlook | undefined, typed: CarOutlook['curve']): CarOutlook['curve'] {
  return known && known.curve.length >= LEAST_POINTS ? known.curve : typed;
}
