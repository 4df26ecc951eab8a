import type { RowDataPacket } from 'mysql2/promise';
import { acOf } from '@/core/records/connector';
import type { MileRecord } from '@/core/records/record-schema';
import { nextWeekday } from '@/core/tariff/example-stop';
import { byCost, type StopAt, stopPrices, type UsualStop, usualStop } from '@/core/tariff/same-stop';
import type { StopAsk } from '@/core/tariff/stop-address';
import { offersOn, payerName, pricesByPlace, providersOf, tariffOn } from '@/core/tariff/tariff-on';
import { localInstant } from '@/core/units/local-time';
import { onceOf } from '@/core/units/once-of';
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

/** Stops that were made: what a proposal rests on, the power that each site gave, and where one was last. */
async function pastStops({ householdId, personId }: SignedIn) {
  const figures = await figuresOf(householdId);
  const [[own], [usual], [lastHere]] = await Promise.all([
    figures.execute<RowDataPacket[]>(
      // Of ten thousand visits few are withdrawn or somebody else's: those are found once, instead of each visit being looked up.
      `SELECT f.site_id, COUNT(*) AS n, SUM(f.delivered_kwh) AS kwh, SUM(f.charging_s) AS s FROM visit_figures f
        WHERE f.household_id = ? AND f.left_out = FALSE AND f.delivered_kwh > 0 AND f.charging_s > 0 AND f.site_id IS NOT NULL
          AND f.visit_id NOT IN (SELECT id FROM visit v WHERE v.household_id = ? AND (v.withdrawn OR NOT ${seen()})) GROUP BY f.site_id`,
      [toBin(householdId), toBin(householdId), seenBy(personId)],
    ),
    figures.execute<RowDataPacket[]>(
      `SELECT f.delivered_kwh, f.arrival_day, f.arrival_hour FROM visit v JOIN visit_figures f ON f.household_id = v.household_id AND f.visit_id = v.id
        WHERE v.household_id = ? AND v.withdrawn = FALSE AND f.left_out = FALSE AND ${seen()} AND v.sort_at >= ? AND f.delivered_kwh IS NOT NULL AND f.arrival_day IS NOT NULL AND f.arrival_hour IS NOT NULL`,
      [toBin(householdId), seenBy(personId), new Date(now() - DAYS_BACK * 86_400_000)],
    ),
    figures.execute<RowDataPacket[]>(
      `SELECT site_id FROM visit v WHERE household_id = ? AND withdrawn = FALSE AND ${seen()} AND site_id IS NOT NULL ORDER BY sort_at DESC LIMIT 1`,
      [toBin(householdId), seenBy(personId)],
    ),
  ]);
  return {
    visits: usual.map((r) => ({ kWh: Number(r.delivered_kwh), day: String(r.arrival_day), hour: Number(r.arrival_hour) })),
    power: new Map(own.map((r) => [fromBin(r.site_id), { kW: (Number(r.kwh) * 3600) / Number(r.s), n: Number(r.n) }])),
    lastSiteId: lastHere[0] ? fromBin(lastHere[0].site_id) : null,
  };
}

// What is made of a list of records holds for as long as nothing of them is written: the list is the same until then.
/** The greatest kW on the plates of each site's stalls. */
const platesOf = onceOf((stalls: readonly MileRecord<'stall'>[]): Map<string, { ac: number; dc: number }> => {
  const plates = new Map<string, { ac: number; dc: number }>();
  for (const s of stalls) {
    if (s.archived) continue;
    const at = plates.get(s.fields.siteId) ?? { ac: 0, dc: 0 };
    plates.set(s.fields.siteId, at);
    for (const o of s.fields.outlets) {
      const kind = acOf(o.connector) === null ? 'dc' : 'ac';
      at[kind] = Math.max(at[kind], o.ratedKW);
    }
  }
  return plates;
});
const standing = <T extends MileRecord>(records: readonly T[]): T[] => records.filter((r) => !r.archived);
const pricesIn = onceOf((tariffs: readonly MileRecord<'tariff'>[]) => pricesByPlace(standing(tariffs)));
const byName = onceOf((sites: readonly MileRecord<'site'>[]) => standing(sites).sort((a, b) => (a.fields.name < b.fields.name ? -1 : 1)));

/** Every site that is kept, by name, with what it could give and the prices in force there today. */
async function pricedPlaces(householdId: string) {
  const [sites, stalls, networks, tariffs, plans, means, providers, cars] = await Promise.all([
    recordsOf(householdId, 'site'),
    recordsOf(householdId, 'stall'),
    recordsOf(householdId, 'network'),
    recordsOf(householdId, 'tariff'),
    recordsOf(householdId, 'plan'),
    recordsOf(householdId, 'means'),
    recordsOf(householdId, 'provider'),
    recordsOf(householdId, 'car'),
  ]);
  const plates = platesOf(stalls);
  const networkName = new Map(networks.map((n) => [n.id, n.fields.name]));
  const held = means.filter((m) => !m.archived).map((m) => m.id);
  const providerIds = providersOf(means, held);
  const pricesOf = pricesIn(tariffs);
  const todayIn = once((zone) => localDay(now(), zone));
  const before = once(dayBefore);
  const places = byName(sites).map((site) => {
    const place = { siteId: site.id, networkId: site.fields.networkId };
    const prices = pricesOf(place);
    const today = todayIn(site.fields.zone);
    return {
      site,
      network: networkName.get(site.fields.networkId) ?? 'Unknown network',
      plates: plates.get(site.id) ?? { ac: 0, dc: 0 },
      offers: offersOn(prices, plans, providerIds, place, today).map((o) => ({
        before: tariffOn(prices, place, before(o.tariff.validFrom), o.payer),
        name: payerName(o.payer, { plans, providers }) ?? '',
        tariff: o.tariff,
      })),
    };
  });
  return { sites, places, cars: cars.filter((c) => !c.archived), plans: plans.filter((p) => !p.archived).length };
}

/** What is the same for many places, such as the day in a zone, is worked out once. */
function once<T>(work: (of: string) => T): (of: string) => T {
  const done = new Map<string, T>();
  return (of) => {
    const found = done.get(of);
    if (found !== undefined) return found;
    const made = work(of);
    done.set(of, made);
    return made;
  };
}

/** One and the same stop at every site of a household, the cheapest first. */
export async function sameStop(who: SignedIn, ask: StopAsk): Promise<SameStop> {
  const [past, { sites, places, cars, plans }] = await Promise.all([pastStops(who), pricedPlaces(who.householdId)]);
  const { car: carId, from: fromId, within: _, ...said } = ask;
  const stop = { ...usualStop(past.visits), ...said };
  const car = cars.find((c) => c.id === carId) ?? cars[0] ?? null;
  const takes = { ac: car?.fields.maxACkW ?? null, dc: car?.fields.maxDCkW ?? null, usableKWh: car?.fields.usableKWh ?? null };
  const priced = stopPrices(stop, takes, who.currency);
  const startIn = once((zone) => localInstant(nextWeekday(localDay(now(), zone), stop.weekday), stop.time, zone) ?? now());
  const rows = places.map(({ site, network, plates: { ac, dc }, offers }) => {
    const { id, fields } = site;
    const { siteId, minutes, guest, held, why } = priced({ id, zone: fields.zone, ac, dc, ownKW: past.power.get(id) ?? null }, startIn(fields.zone), offers);
    return { siteId, minutes, guest, held, why, name: fields.name, network, latitude: fields.latitude, longitude: fields.longitude };
  });
  const last = sites.find((s) => s.id === fromId) ?? sites.find((s) => s.id === past.lastSiteId);
  const from =
    last && last.fields.latitude !== null && last.fields.longitude !== null
      ? { id: last.id, name: last.fields.name, latitude: last.fields.latitude, longitude: last.fields.longitude }
      : null;
  return {
    stop,
    levelsUnknown: stop.levels !== undefined && takes.usableKWh === null,
    proposed: Object.keys(said).length === 0,
    car: car && { id: car.id, name: car.fields.name },
    cars: cars.map((c) => ({ id: c.id, name: c.fields.name })),
    rows: byCost(rows),
    from,
    plans,
  };
}
