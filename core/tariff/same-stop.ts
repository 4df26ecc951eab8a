import { type Current, USUAL_YIELD } from './all-in';
import type { Bill, Line } from './bill';
import { billOf, cannotPrice } from './bill';
import { sumOfBills } from './bill-words';
import type { CompiledTariff } from './compiled-tariff';
import { decimal } from './exact';
import { exampleStop } from './example-stop';
import type { ChargedSession } from './session-period';
import { compiledOf, contentOf } from './tariff-object';
import type { KeptTariff } from './tariff-on';

/** From and to so many per cent of the battery. */
export type Levels = { fromPct: number; toPct: number };
/**
 * A stop as it is usually made: so much energy by the meter, or from a level to another, from when on, so many minutes at least, and how long the car stays plugged in
 * after it.
 */
export type UsualStop = { kWh: number; levels?: Levels; weekday: number; time: string; minutes?: number; parkedMin: number };

/** Visits that a proposal rests on, at least; and what is proposed without them. */
const LEAST_VISITS = 3;
export const PLAIN_STOP: UsualStop = { kWh: 40, weekday: 2, time: '17:00', parkedMin: 0 };

/** The middle of sorted numbers. */
const middle = (sorted: readonly number[]): number => sorted[Math.floor((sorted.length - 1) / 2)] as number;

/**
 * The stop that the ledger proposes: the middle of what was delivered, on the day of the week that is commonest, at the middle hour.
 * @param visits with a known delivery; `hour` by the clock of the place
 */
export function usualStop(visits: readonly { kWh: number; day: string; hour: number }[]): UsualStop {
  const charged = visits.filter((v) => v.kWh > 0);
  if (charged.length < LEAST_VISITS) return PLAIN_STOP;
  const days = new Map<number, number>();
  for (const v of charged) {
    const weekday = new Date(`${v.day}T12:00:00Z`).getUTCDay();
    days.set(weekday, (days.get(weekday) ?? 0) + 1);
  }
  const [weekday] = [...days].sort(([x, a], [y, b]) => b - a || x - y)[0] as [number, number];
  const sorted = (of: (v: (typeof charged)[number]) => number) => charged.map(of).sort((a, b) => a - b);
  return {
    kWh: Number(middle(sorted((v) => v.kWh)).toFixed(1)),
    weekday,
    time: `${String(middle(sorted((v) => v.hour))).padStart(2, '0')}:00`,
    parkedMin: 0,
  };
}

/** Sessions at a site from which its own power is taken, instead of its plate. */
const LEAST_SESSIONS = 3;
/**
 * A site as the stop is priced there. `ac` and `dc`: the greatest kW on the plates of its stalls, 0 where there is none; `ownKW`: mean power of the ledger's own
 * sessions there, of so many.
 */
export type StopSite = { id: string; zone: string; ac: number; dc: number; ownKW: { kW: number; n: number } | null };
/** The most that a car takes, kW, and what of its battery can be used, kWh; `null`: not noted. */
export type StopCar = { ac: number | null; dc: number | null; usableKWh: number | null };
/** `kWh` by the meter; `current`: by which outlet, the quicker; `by`: what the minutes rest on, `said` where more were asked for than the energy takes. */
export type StopMinutes = { kWh: number; minutes: number; by: 'own' | 'plate' | 'car' | 'said'; current: Current };

/** kWh by the meter of a stop: where it is from a level to another, what comes into the battery by the usual yield of the outlet, so that AC and DC are alike there. */
export const stopKWh = (stop: Pick<UsualStop, 'kWh' | 'levels'>, usableKWh: number | null, current: Current): number =>
  stop.levels && usableKWh !== null ? (((stop.levels.toPct - stop.levels.fromPct) / 100) * usableKWh) / USUAL_YIELD[current] : stop.kWh;

/** How long a stop takes at a site: by its own past power, else by the lesser of plate and car at its best stall; at least what is asked for. `null`: no power is noted. */
export function stopMinutes(stop: Pick<UsualStop, 'kWh' | 'levels' | 'minutes'>, site: StopSite, car: StopCar): StopMinutes | null {
  const power = stopPower(site, car);
  if (!power) return null;
  const kWh = stopKWh(stop, car.usableKWh, power.current);
  const needed = (kWh / power.kW) * 60;
  const said = stop.minutes ?? 0;
  return { kWh, minutes: Math.max(needed, said), by: said > needed ? 'said' : power.by, current: power.current };
}

function stopPower(site: StopSite, car: StopCar): { kW: number; by: 'own' | 'plate' | 'car'; current: Current } | null {
  if (site.ownKW && site.ownKW.n >= LEAST_SESSIONS && site.ownKW.kW > 0) return { kW: site.ownKW.kW, by: 'own', current: site.dc > 0 ? 'dc' : 'ac' };
  const [best] = (
    [
      ['dc', site.dc, car.dc],
      ['ac', site.ac, car.ac],
    ] as const
  )
    .flatMap(([current, plate, most]) =>
      plate > 0 ? [{ current, kW: Math.min(plate, most ?? plate), by: most !== null && most < plate ? ('car' as const) : ('plate' as const) }] : [],
    )
    .sort((a, b) => b.kW - a.kW);
  return best && best.kW > 0 ? best : null;
}

/** What a price is made of, in the order in which it is drawn; amounts tax in. */
export const PARTS = ['energy', 'minutes', 'start', 'idle', 'overstay', 'rest'] as const;
export type Part = (typeof PARTS)[number];
const PART_OF: Readonly<Record<Line['of'], Part>> = {
  ENERGY: 'energy',
  TIME: 'minutes',
  X_POWER_TIME: 'minutes',
  FLAT: 'start',
  PARKING_TIME: 'idle',
  X_IDLE: 'idle',
  X_OVERSTAY: 'overstay',
  min_price: 'rest',
  max_price: 'rest',
  x_minimum_charge: 'rest',
  x_tax: 'rest',
};

/** `before`: what the same came to by the price that this one followed, where there was one. */
export type StopCost = { total: string; parts: [Part, number][]; tariffId: string; since: string; before: string | null };
/** The stop at one site: as a guest, and by the cheapest of the plans held; `why`: why there is no price. */
export type StopAt = { siteId: string; minutes: StopMinutes | null; guest: StopCost | null; held: (StopCost & { name: string }) | null; why: string | null };

function partsOf(bill: Bill): [Part, number][] {
  const sums = new Map<Part, number>();
  for (const l of bill.lines) {
    const part = PART_OF[l.of];
    sums.set(part, (sums.get(part) ?? 0) + Number(decimal(l.incl, 6)));
  }
  return PARTS.flatMap((part): [Part, number][] => (sums.get(part) ? [[part, sums.get(part) as number]] : []));
}

/**
 * One and the same stop, by the prices on file: made once, then asked for site after site. A session is made once for all sites at which it is alike, and what
 * it costs once for all prices that say the same, as those of a network do.
 * @returns what it costs at a site, from `start` on, UTC ms, by the clock of the place; `offers`: prices for guests and with plans, and what each followed, `name` empty for guests
 */
export function stopPrices(stop: UsualStop, car: StopCar, currency: string) {
  type Costs = Map<string, PricedStop | null>;
  const sessions = new Map<string, { session: ChargedSession; dated: Costs; undated: Costs }>();
  const sessionAt = (zone: string, start: number, { kWh, minutes }: StopMinutes) => {
    const key = `${zone} ${start} ${kWh} ${minutes}`;
    const found = sessions.get(key) ?? {
      session: exampleStop(zone, start, Number(kWh.toFixed(3)), minutes, stop.parkedMin),
      dated: new Map(),
      undated: new Map(),
    };
    sessions.set(key, found);
    return found;
  };
  /** `null`: it cannot be priced. */
  const costIn = (costs: Costs, t: KeptTariff, session: ChargedSession, ready: (t: CompiledTariff) => CompiledTariff): PricedStop | null => {
    const key = contentOf(t);
    const found = costs.get(key);
    if (found !== undefined) return found;
    const made = pricedStop(ready(compiledOf(t)), session);
    costs.set(key, made);
    return made;
  };
  return (site: StopSite, start: number, offers: readonly { name: string; tariff: KeptTariff; before?: KeptTariff | undefined }[]): StopAt => {
    const minutes = stopMinutes(stop, site, car);
    const own = offers.filter((o) => o.tariff.currency === currency);
    const none = (why: string): StopAt => ({ siteId: site.id, minutes, guest: null, held: null, why });
    if (offers.length === 0) return none('no price on file');
    if (own.length === 0) return none(`priced in ${offers[0]?.tariff.currency}`);
    if (!minutes) return none('no power is noted, so the minutes are not known');
    const { session, dated, undated } = sessionAt(site.zone, start, minutes);
    const priced = own.flatMap((o): (StopCost & { name: string })[] => {
      const cost = costIn(dated, o.tariff, session, (t) => t);
      if (!cost) return [];
      const before = o.before && o.before.currency === currency ? (costIn(undated, o.before, session, withoutDays)?.total ?? null) : null;
      return [{ name: o.name, total: cost.total, parts: cost.parts, tariffId: o.tariff.id, since: o.tariff.validFrom, before }];
    });
    const [held] = priced.filter((c) => c.name !== '').sort((a, b) => Number(a.total) - Number(b.total));
    const guest = priced.find((c) => c.name === '') ?? null;
    return { siteId: site.id, minutes, guest, held: held ?? null, why: priced.length === 0 ? 'the price depends on what is not known' : null };
  };
}

type PricedStop = Pick<StopCost, 'total' | 'parts'>;
function pricedStop(t: CompiledTariff, session: ChargedSession): PricedStop | null {
  if (cannotPrice(t, session).length > 0) return null;
  const bill = billOf(t, session);
  return { total: sumOfBills([bill], true), parts: partsOf(bill) };
}

/** A price without its days: one that has ended is none now. */
const withoutDays = (t: CompiledTariff): CompiledTariff => ({ ...t, from: null, until: null });

/** What somebody pays at least: with a plan held, else as a guest. */
export const leastOf = ({ guest, held }: StopAt): number | null => {
  if (guest && held) return Math.min(Number(guest.total), Number(held.total));
  const one = guest ?? held;
  return one && Number(one.total);
};

/** What of it costs a kWh that comes into the battery, at the least price: AC, DC and home are made equal there. */
export const perBatteryKWh = (s: StopAt): number | null => {
  const least = leastOf(s);
  return least === null || !s.minutes ? null : least / (s.minutes.kWh * USUAL_YIELD[s.minutes.current]);
};

/** The cheapest first; what costs the same, and last what has no price, in the order it came. */
export function byCost<T extends StopAt>(stops: readonly T[]): T[] {
  const costs = stops.map((stop) => ({ stop, least: leastOf(stop) ?? Number.POSITIVE_INFINITY }));
  return costs.sort((a, b) => a.least - b.least || 0).map(({ stop }) => stop);
}

/** One sentence over the list: where it costs least, and how much more where it costs most. @param money prints an amount */
export function sameStopSentence(stops: readonly StopAt[], nameOf: (siteId: string) => string, money: (amount: number) => string): string {
  const priced = byCost(stops.filter((s) => leastOf(s) !== null));
  const [first, last] = [priced[0], priced.at(-1)];
  if (!first || !last) return 'No site has a price on file: type what stands on the post, and this stop is priced everywhere.';
  const [least, most] = [leastOf(first) as number, leastOf(last) as number];
  const at = `This stop costs least at ${nameOf(first.siteId)}, ${money(least)}`;
  if (priced.length === 1) return `${at}: the one site with a price on file.`;
  if (most - least < 0.005) return `This stop costs the same, ${money(least)}, at all ${priced.length} sites with a price on file.`;
  const why = (first.guest ?? first.held)?.parts.map(([p]) => p);
  const more = (last.guest ?? last.held)?.parts.map(([p]) => p).filter((p) => !why?.includes(p) && (p === 'idle' || p === 'overstay')) ?? [];
  return `${at}, and ${money(most - least)} more at ${nameOf(last.siteId)}${more.length > 0 ? ', where you stay past the grace' : ''}.`;
}

/** The cheapest of those near, and how much more it is than the cheapest of all. @param near those within so far, in words such as `30 km of Vrba Crossing` */
export function nearSentence(
  stops: readonly StopAt[],
  near: readonly StopAt[],
  within: string,
  nameOf: (siteId: string) => string,
  money: (amount: number) => string,
): string {
  const cheapest = (of: readonly StopAt[]) => byCost(of.filter((s) => leastOf(s) !== null))[0];
  const [here, best] = [cheapest(near), cheapest(stops)];
  if (!here || !best) return `Within ${within} no site has a price on file.`;
  const [least, all] = [leastOf(here) as number, leastOf(best) as number];
  const more = least - all >= 0.005 ? `, ${money(least - all)} more than at ${nameOf(best.siteId)}` : ', the cheapest of all';
  return `Within ${within} it costs least at ${nameOf(here.siteId)}: ${money(least)}${more}.`;
}
