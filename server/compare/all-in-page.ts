import type { RowDataPacket } from 'mysql2/promise';
import { usedOnTheWay } from '@/core/power/consumption';
import { acOf } from '@/core/records/connector';
import type { MileRecord } from '@/core/records/record-schema';
import { type AllIn, allInOf, type BilledCharge, homePer100km, measuredUse, riseOf, type Yields, yieldsOf } from '@/core/tariff/all-in';
import { breakEvenPump, equivalentNeed, type Fuel, fuelPer100km } from '@/core/tariff/fuel';
import { grouped } from '@/core/units/grouped';
import { localDay, localHour } from '@/core/units/zoned';
import { wholeEnergy } from '@/core/visit/delivered';
import type { Visit } from '@/core/visit/derive';
import { chosenStall } from '@/core/visit/receipt-alone';
import type { SignedIn } from '../accounts/sessions';
import { now } from '../clock';
import { fromBin, toBin } from '../db/binary-id';
import { figuresOf } from '../figures/refresh';
import { recordsOf, recordsWhere } from '../records/record-tables';
import { visitsById } from '../visits/derived-visits';
import { seen, seenBy } from '../visits/seen-by';

/** Visits of a car that are looked at: the newest. */
const MOST_VISITS = 3_000;
const YEAR_MS = 366 * 86_400_000;

type Other = MileRecord<'otherprice'>['fields'];
export type AllInPage = {
  car: { id: string; name: string } | null;
  cars: { id: string; name: string }[];
  /** kWh per 100 km from the battery: measured on own drives, else as noted with the car. */
  use: { kWhPer100km: number; by: 'measured' | 'noted'; km: number; n: number } | null;
  yields: Yields;
  all: AllIn | null;
  networks: (AllIn & { id: string; name: string })[];
  /** Bills in another currency, and charges without a bill: in no figure here. */
  elsewhere: number;
  unbilled: number;
  /** Visits that are in no figure here for being too many. */
  beyond: number;
  hour: Other | null;
  home: (Other & { per100km: number | null }) | null;
  fuels: (Other & { per100km: number; breakEven: number | null; equivalent: number | null })[];
};

/** What a car's charging of the last twelve months came to, beside charging at home and fuel. */
export async function allInPage(who: SignedIn, carId: string | null, most = MOST_VISITS): Promise<AllInPage> {
  const { householdId } = who;
  const [cars, others] = await Promise.all([recordsOf(householdId, 'car'), recordsOf(householdId, 'otherprice')]);
  const kept = cars.filter((c) => !c.archived);
  const car = kept.find((c) => c.id === carId) ?? kept[0] ?? null;
  const { visits, beyond } = car ? await visitsOfCar(who, car.id, most) : { visits: [], beyond: 0 };
  const usable = car?.fields.usableKWh ?? 0;
  const { charges, elsewhere, unbilled } = await chargesOf(who, visits, usable);
  const measured = measuredUse(waysBetween(visits, usable));
  const noted = car?.fields.kWhPer100km ?? null;
  const use = measured ? { ...measured, by: 'measured' as const } : noted === null ? null : { kWhPer100km: noted, by: 'noted' as const, km: 0, n: 0 };
  const today = localDay(now(), who.zone);
  const other = (what: Other['what']): Other | null =>
    others
      .filter((o) => !o.archived && o.fields.what === what && o.fields.from <= today && o.fields.currency === who.currency)
      .sort((a, b) => (a.fields.from < b.fields.from ? 1 : -1))[0]?.fields ?? null;
  const [home, hour] = [other('home'), other('hour')];
  const yields = yieldsOf(charges);
  const kWhPer100km = use?.kWhPer100km ?? null;
  const of = (list: readonly BilledCharge[]) => allInOf(list, yields, kWhPer100km, hour ? Number(hour.price) : null);
  const all = of(charges);
  const names = new Map((await recordsOf(householdId, 'network')).map((n) => [n.id, n.fields.name]));
  return {
    car: car && { id: car.id, name: car.fields.name },
    cars: kept.map((c) => ({ id: c.id, name: c.fields.name })),
    use,
    yields,
    all,
    networks: [...grouped(charges, (c) => c.group)]
      .flatMap(([id, list]) => {
        const told = of(list);
        return told ? [{ ...told, id, name: names.get(id) ?? 'Unknown network' }] : [];
      })
      .sort((a, b) => a.perBatteryKWh - b.perBatteryKWh || (a.name < b.name ? -1 : 1)),
    elsewhere,
    unbilled,
    beyond,
    hour,
    home: home && { ...home, per100km: kWhPer100km === null ? null : homePer100km(Number(home.price), yields, kWhPer100km) },
    fuels: (['petrol', 'diesel'] as const).flatMap((what) => {
      const found = other(what);
      if (!found || found.needs === null || Number(found.price) <= 0) return [];
      const fuel: Fuel = { price: Number(found.price), unit: found.unit, needs: found.needs };
      const per100km = all?.per100km ?? null;
      return [
        {
          ...found,
          per100km: fuelPer100km(fuel),
          breakEven: per100km === null ? null : breakEvenPump(per100km, fuel),
          equivalent: per100km === null || per100km <= 0 ? null : equivalentNeed(per100km, fuel),
        },
      ];
    }),
  };
}

/** The newest visits of a car in the last twelve months that this person sees, the first first; how many more there are. */
async function visitsOfCar(who: SignedIn, carId: string, most: number): Promise<{ visits: Visit[]; beyond: number }> {
  const [rows] = await (await figuresOf(who.householdId)).execute<RowDataPacket[]>(
    `SELECT v.id, COUNT(*) OVER () AS n FROM visit v JOIN visit_figures f ON f.household_id = v.household_id AND f.visit_id = v.id
      WHERE v.household_id = ? AND v.withdrawn = FALSE AND f.left_out = FALSE AND ${seen()} AND v.car_id = ? AND v.sort_at >= ? ORDER BY v.sort_at DESC LIMIT ${Math.trunc(most)}`,
    [toBin(who.householdId), seenBy(who.personId), toBin(carId), new Date(now() - YEAR_MS)],
  );
  const ids = rows.map((r) => fromBin(r.id)).reverse();
  return { visits: [...(await visitsById(who.householdId, ids)).values()], beyond: Number(rows[0]?.n ?? 0) - ids.length };
}

async function chargesOf(
  who: SignedIn,
  visits: readonly Visit[],
  usableKWh: number,
): Promise<{ charges: BilledCharge[]; elsewhere: number; unbilled: number }> {
  const used = (v: Visit) => (v.attempts.length > 0 ? (v.attempts.find((a) => a.proof)?.stallId ?? null) : chosenStall(v));
  const [sites, stalls] = await Promise.all([
    recordsWhere(who.householdId, 'site', 'id', [...new Set(visits.flatMap((v) => v.siteId ?? []))]),
    recordsWhere(who.householdId, 'stall', 'id', [...new Set(visits.flatMap((v) => used(v) ?? []))]),
  ]);
  const networkOf = new Map(sites.map((s) => [s.id, s.fields.networkId]));
  const isAC = new Map(stalls.map((s) => [s.id, s.fields.outlets.length > 0 && s.fields.outlets.every((o) => acOf(o.connector) !== null)]));
  let [elsewhere, unbilled] = [0, 0];
  const charges = visits.flatMap((v): BilledCharge[] => {
    const energy = wholeEnergy(v.delivered);
    if (v.ended !== 'charge' || !energy.known) return [];
    if (!v.paid.known) {
      if (v.bills.length === 0) unbilled += 1;
      else elsewhere += 1;
      return [];
    }
    if (v.paid.value.currency !== who.currency) {
      elsewhere += 1;
      return [];
    }
    const session = v.attempts.find((a) => a.proof);
    return [
      {
        group: networkOf.get(v.siteId ?? '') ?? '',
        current: isAC.get(used(v) ?? '') ? 'ac' : 'dc',
        paid: v.paid.value.amount,
        kWh: energy.value,
        rise: riseOf(session?.readings.filter((r) => r.screen === 'stall') ?? [], usableKWh),
        visit_s: v.times.visit.known && !v.dayOnly ? v.times.visit.s : null,
        hour: v.pulledInAt === null || v.dayOnly ? null : localHour(v.pulledInAt, v.zone),
      },
    ];
  });
  return { charges, elsewhere, unbilled };
}

/** What the car used between one stop and the next, where both say level and odometer. */
function waysBetween(visits: readonly Visit[], usableKWh: number): { kWhPer100km: number; km: number }[] {
  const odometer = (v: Visit) => v.line.find((e) => e.kind === 'pulled_in')?.payload.odometerKm ?? null;
  return visits.slice(1).flatMap((here, i) => {
    const before = visits[i] as Visit;
    const [from, to] = [odometer(before), odometer(here)];
    const left = before.socTo ?? before.socFrom;
    if (from === null || to === null || left === null || here.socFrom === null) return [];
    const used = usedOnTheWay({ odometerKm: from, socPct: left }, { odometerKm: to, socPct: here.socFrom }, usableKWh);
    return used === null ? [] : [{ kWhPer100km: used, km: to - from }];
  });
}
