import type { RowDataPacket } from 'mysql2/promise';
import { acOf } from '@/core/records/connector';
import { nextWeekday } from '@/core/tariff/example-stop';
import { byCost, type StopAt, type StopSite, stopAt, type UsualStop, usualStop } from '@/core/tariff/same-stop';
import type { StopAsk } from '@/core/tariff/stop-address';
import { offersOn, payerName, pricesByPlace, providersOf, tariffOn } from '@/core/tariff/tariff-on';
import { localInstant } from '@/core/units/local-time';
import { dayBefore, localDay } from '@/core/units/zoned';
import type { SignedIn } from '../accounts/sessions';
import { now } from '../clock';
import { fromBin, toBin } from '../db/binary-id';
import { figuresOf } from '../figures/refresh';
import { recordsOf } from '../records/record-tables';
import { seen, seenBy } from '../visits/seen-by';

/** Visits that the proposal rests on: those of the last so many days. */
const DAYS_BACK = 366;

export type SameStop = {
  stop: UsualStop;
  /** Levels are asked for, and the car’s usable kWh is not noted: the kWh are taken. */
  levelsUnknown: boolean;
  proposed: boolean;
  car: { id: string; name: string } | null;
  cars: { id: string; name: string }[];
  rows: (StopAt & { name: string; network: string; latitude: number | null; longitude: number | null })[];
  from: { id: string; name: string; latitude: number; longitude: number } | null;
  plans: number;
};

/** One and the same stop at every site of a household, the cheapest first. */
export async function sameStop(who: SignedIn, ask: StopAsk): Promise<SameStop> {
  const { householdId, personId } = who;
  const figures = await figuresOf(householdId);
  const [sites, stalls, networks, tariffs, plans, means, providers, cars, [usual], [own], [lastHere]] = await Promise.all([
    recordsOf(householdId, 'site'),
    recordsOf(householdId, 'stall'),
    recordsOf(householdId, 'network'),
    recordsOf(householdId, 'tariff'),
    recordsOf(householdId, 'plan'),
    recordsOf(householdId, 'means'),
    recordsOf(householdId, 'provider'),
    recordsOf(householdId, 'car'),
    figures.execute<RowDataPacket[]>(
      `SELECT f.delivered_kwh, f.arrival_day, f.arrival_hour, v.car_id FROM visit v JOIN visit_figures f ON f.household_id = v.household_id AND f.visit_id = v.id
        WHERE v.household_id = ? AND v.withdrawn = FALSE AND f.left_out = FALSE AND ${seen()} AND v.sort_at >= ? AND f.delivered_kwh IS NOT NULL AND f.arrival_day IS NOT NULL AND f.arrival_hour IS NOT NULL`,
      [toBin(householdId), seenBy(personId), new Date(now() - DAYS_BACK * 86_400_000)],
    ),
    figures.execute<RowDataPacket[]>(
      `SELECT v.site_id, COUNT(*) AS n, SUM(f.delivered_kwh) AS kwh, SUM(a.s) AS s FROM visit v
         JOIN visit_figures f ON f.household_id = v.household_id AND f.visit_id = v.id
         JOIN (SELECT household_id, visit_id, SUM(charging_s) AS s FROM attempt_figures WHERE household_id = ? AND outcome = 'power' GROUP BY household_id, visit_id HAVING COUNT(*) = COUNT(charging_s)) a
           ON a.household_id = v.household_id AND a.visit_id = v.id
        WHERE v.household_id = ? AND v.withdrawn = FALSE AND f.left_out = FALSE AND ${seen()} AND f.delivered_kwh > 0 AND a.s > 0 AND v.site_id IS NOT NULL GROUP BY v.site_id`,
      [toBin(householdId), toBin(householdId), seenBy(personId)],
    ),
    figures.execute<RowDataPacket[]>(
      `SELECT site_id FROM visit v WHERE household_id = ? AND withdrawn = FALSE AND ${seen()} AND site_id IS NOT NULL ORDER BY sort_at DESC LIMIT 1`,
      [toBin(householdId), seenBy(personId)],
    ),
  ]);
  const visits = usual.map((r) => ({ kWh: Number(r.delivered_kwh), day: String(r.arrival_day), hour: Number(r.arrival_hour) }));
  const { car: carId, from: fromId, within: _, ...said } = ask;
  const stop = { ...usualStop(visits), ...said };
  const kept = cars.filter((c) => !c.archived);
  const car = kept.find((c) => c.id === carId) ?? kept[0] ?? null;
  const takes = { ac: car?.fields.maxACkW ?? null, dc: car?.fields.maxDCkW ?? null, usableKWh: car?.fields.usableKWh ?? null };
  const plates = new Map<string, { ac: number; dc: number }>();
  for (const s of stalls) {
    const at = plates.get(s.fields.siteId) ?? { ac: 0, dc: 0 };
    plates.set(s.fields.siteId, at);
    if (s.archived) continue;
    for (const o of s.fields.outlets) {
      const kind = acOf(o.connector) === null ? 'dc' : 'ac';
      at[kind] = Math.max(at[kind], o.ratedKW);
    }
  }
  const power = new Map(own.map((r) => [fromBin(r.site_id), { kW: (Number(r.kwh) * 3600) / Number(r.s), n: Number(r.n) }]));
  const networkName = new Map(networks.map((n) => [n.id, n.fields.name]));
  const held = means.filter((m) => !m.archived).map((m) => m.id);
  const providerIds = providersOf(means, held);
  const pricesOf = pricesByPlace(tariffs.filter((t) => !t.archived));
  // Days and moments are the same at every site of a zone.
  const starts = new Map<string, { today: string; at: number | null }>();
  const startIn = (zone: string) => {
    const found = starts.get(zone);
    if (found) return found;
    const today = localDay(now(), zone);
    const made = { today, at: localInstant(nextWeekday(today, stop.weekday), stop.time, zone) };
    starts.set(zone, made);
    return made;
  };
  const rows = sites
    .filter((s) => !s.archived)
    .map((s) => {
      const { today, at } = startIn(s.fields.zone);
      const site: StopSite = { id: s.id, zone: s.fields.zone, ...(plates.get(s.id) ?? { ac: 0, dc: 0 }), ownKW: power.get(s.id) ?? null };
      const place = { siteId: s.id, networkId: s.fields.networkId };
      const prices = pricesOf(place);
      const offers = offersOn(prices, plans, providerIds, place, today).map((o) => ({
        before: tariffOn(prices, place, dayBefore(o.tariff.validFrom), o.payer),
        name: payerName(o.payer, { plans, providers }) ?? '',
        tariff: o.tariff,
      }));
      return {
        ...stopAt(stop, site, takes, at ?? now(), offers, who.currency),
        name: s.fields.name,
        network: networkName.get(s.fields.networkId) ?? 'Unknown network',
        latitude: s.fields.latitude,
        longitude: s.fields.longitude,
      };
    })
    .sort((a, b) => byCost(a, b) || (a.name < b.name ? -1 : 1));
  const last = sites.find((s) => s.id === fromId) ?? (lastHere[0] ? sites.find((s) => s.id === fromBin(lastHere[0]?.site_id)) : undefined);
  const from =
    last && last.fields.latitude !== null && last.fields.longitude !== null
      ? { id: last.id, name: last.fields.name, latitude: last.fields.latitude, longitude: last.fields.longitude }
      : null;
  return {
    stop,
    levelsUnknown: stop.levels !== undefined && takes.usableKWh === null,
    proposed: Object.keys(said).length === 0,
    car: car && { id: car.id, name: car.fields.name },
    cars: kept.map((c) => ({ id: c.id, name: c.fields.name })),
    rows,
    from,
    plans: plans.filter((p) => !p.archived).length,
  };
}
