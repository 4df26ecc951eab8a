import { beyondCurveWords } from '@/core/power/beyond-curve';
import { matesOf } from '@/core/power/charge-conditions';
import { compatibleStalls } from '@/core/power/compatible-stalls';
import { limitsOf, type PowerCurve } from '@/core/power/limits';
import type { OwnCurve } from '@/core/power/own-curve';
import { curveKnown, isLearnt, learntCurve } from '@/core/power/past-sessions';
import { AC_BASIS } from '@/core/power/power-words';
import { canJudge, outletOf, settingOf, shareOf } from '@/core/power/setting-of';
import { type WhatIf, whatIf } from '@/core/power/what-if';
import { carDCkW } from '@/core/records/car-kw';
import type { MileRecord } from '@/core/records/record-schema';
import { billOf, cannotPrice } from '@/core/tariff/bill';
import { billWords } from '@/core/tariff/bill-words';
import { exampleStop } from '@/core/tariff/example-stop';
import { compiledOf } from '@/core/tariff/tariff-object';
import { type Offer, offersOn } from '@/core/tariff/tariff-on';
import { printMoney } from '@/core/units/money';
import { printKW } from '@/core/units/print';
import { localDay } from '@/core/units/zoned';
import type { SignedIn } from '../accounts/sessions';
import { now } from '../clock';
import { recordsOf } from '../records/record-tables';
import { stallDangers } from '../visits/stall-dangers';
import { stallsLately } from '../visits/stalls-lately';
import { outlooks } from './outlooks';
import { pastSessions } from './past-sessions';

/** `price`: as whom one pays, the id of a plan or provider; `null`: as a guest. */
export type StopIdea = { car: string | null; stall: string | null; from: number; to: number; paired: boolean; cold: boolean; price: string | null };
export type PlannedStop = {
  cars: { id: string; name: string }[];
  stalls: { id: string; name: string }[];
  /** As whom one can pay at this stall today, beside as a guest. */
  prices: { id: string; name: string }[];
  idea: StopIdea;
  rows: (WhatIf & { money: string | null })[];
  /** Why nothing could be reckoned, or what it rests on. */
  words: string[];
};

const MOST_PAST = 600;
type Stall = MileRecord<'stall'>;

/** A stop thought of beforehand: minutes, average, money and range, and what else could be done. */
export async function plannedStop(who: SignedIn, ask: Partial<StopIdea>): Promise<PlannedStop> {
  const { householdId } = who;
  const [cars, sites, stalls, adapters, means, enrolments, tariffs, plans, providers, ahead, dangers, lately] = await Promise.all([
    recordsOf(householdId, 'car'),
    recordsOf(householdId, 'site'),
    recordsOf(householdId, 'stall'),
    recordsOf(householdId, 'adapter'),
    recordsOf(householdId, 'means'),
    recordsOf(householdId, 'enrolment'),
    recordsOf(householdId, 'tariff'),
    recordsOf(householdId, 'plan'),
    recordsOf(householdId, 'provider'),
    outlooks(who),
    stallDangers(householdId),
    stallsLately(who),
  ]);
  const kept = cars.filter((c) => !c.archived);
  const siteOf = new Map(sites.map((s) => [s.id, s]));
  const open = stalls.filter((s) => !s.archived && siteOf.get(s.fields.siteId)?.archived === false);
  const nameOf = (s: Stall) => `${siteOf.get(s.fields.siteId)?.fields.name ?? ''} ${s.fields.name}`.trim();
  const car = kept.find((c) => c.id === ask.car) ?? kept[0] ?? null;
  const here = open.find((s) => s.id === ask.stall) ?? open[0] ?? null;
  const idea: StopIdea = {
    car: car?.id ?? null,
    stall: here?.id ?? null,
    from: ask.from ?? 20,
    to: ask.to ?? 80,
    paired: ask.paired ?? false,
    cold: ask.cold ?? false,
    price: null,
  };
  const heldBy = means.flatMap((m) => (!m.archived && m.fields.providerId ? [m.fields.providerId] : []));
  const offersAt = (place: MileRecord<'site'>) =>
    offersOn(
      tariffs.filter((t) => !t.archived),
      plans.filter((p) => !p.archived),
      heldBy,
      { siteId: place.id, networkId: place.fields.networkId },
      localDay(now(), place.fields.zone),
    );
  const payerOf = (o: Offer) => o.payer.planId ?? o.payer.providerId;
  const hereSite = here ? siteOf.get(here.fields.siteId) : undefined;
  const named = new Map([...plans, ...providers].map((r) => [r.id, r.fields.name]));
  const prices = (hereSite ? offersAt(hereSite) : []).flatMap((o) => {
    const id = payerOf(o);
    return id ? [{ id, name: named.get(id) ?? 'a plan' }] : [];
  });
  idea.price = prices.some((p) => p.id === ask.price) ? (ask.price ?? null) : null;
  const page = {
    prices,
    cars: kept.map((c) => ({ id: c.id, name: c.fields.name })),
    stalls: open.map((s) => ({ id: s.id, name: nameOf(s) })).sort((a, b) => a.name.localeCompare(b.name, 'en', { numeric: true })),
    idea,
  };
  if (!car || !here) return { ...page, rows: [], words: ['Add a car to the garage and a stall to the places: then a stop can be thought of.'] };
  if (idea.to <= idea.from) return { ...page, rows: [], words: ['The battery is to be fuller afterwards than before.'] };

  const past = await pastSessions(who, { car: car.id, time: 'handshake', mark: 'kW' }, MOST_PAST);
  const words: string[] = [];
  const learnt = learntCurve(past, idea.cold ? 'cold' : 'usual');
  const ownCurve = curveKnown(learnt, car.fields.curve);
  const mostKW = carDCkW(car.fields);
  const curve: PowerCurve = ownCurve.length === 0 && mostKW !== null ? [[0, mostKW]] : ownCurve;
  const at = (stall: Stall, paired: boolean) => {
    const place = siteOf.get(stall.fields.siteId) as MileRecord<'site'>;
    const way = compatibleStalls(
      { car, adapters, means, enrolments },
      { site: place, stalls: [stall], dangers },
      lately,
      localDay(now(), place.fields.zone),
    )[0];
    const adapter = adapters.find((a) => a.id === way?.way?.adapterId)?.fields ?? null;
    const outlet = outletOf(stall.fields, car.fields, way?.way?.connector ?? null, adapter?.from ?? null);
    const derated = stall.fields.state?.is === 'derated' ? stall.fields.state.kW : null;
    return { way, plateKW: outlet.ratedKW, ...settingOf({ car: car.fields, stall: stall.fields, outlet, adapter, curve, paired, deratedKW: derated }) };
  };
  const own = at(here, idea.paired);
  const told = canJudge(own.setting);
  words.push(own.setting.stall.kind === 'ac' ? acWords(own.plateKW, told) : curveWords(learnt, ownCurve.length, idea.cold, mostKW));
  const beyond = ownCurve.length > 0 ? beyondCurveWords(limitsOf(own.setting), idea.from, idea.to) : null;
  if (beyond) words.push(beyond);
  if (own.way?.use === 'no') words.push(`By what is on file it cannot be used: ${own.way.reasons.map((r) => r.text).join('; ')}.`);
  if (idea.paired && shareOf(here.fields, own.plateKW) === null)
    words.push('What this stall shares with its neighbour is not on file: paired and alone come to the same.');
  // Where a neighbour charges, who goes to a post of the same cabinet is its neighbour there.
  const mates = matesOf(
    here.id,
    here.fields.cabinet,
    open.filter((s) => s.fields.siteId === here.fields.siteId),
  );
  // Of posts as quick as each other one of the same site costs no drive.
  const others = open
    .filter((s) => s.id !== here.id && !(idea.paired && mates.has(s.id)))
    .sort((a, b) => Number(b.fields.siteId === here.fields.siteId) - Number(a.fields.siteId === here.fields.siteId))
    .flatMap((s) => {
      const { way, setting, battery } = at(s, false);
      return told && way?.use === 'yes' && canJudge(setting) ? [{ id: s.id, setting, battery, name: nameOf(s) }] : [];
    });
  const site = siteOf.get(here.fields.siteId) as MileRecord<'site'>;
  const outlook = ahead.sites[site.id];
  const rows = whatIf({
    setting: own.setting,
    battery: own.battery,
    from: idea.from,
    to: idea.to,
    range: { usableKWh: car.fields.usableKWh, kWhPer100km: car.fields.kWhPer100km },
    others,
    handshake_min: outlook?.handshake_min ?? 1.5,
  });
  if (others.length > 0 && !rows.some((r) => r.elsewhere !== null)) words.push('No other post on file is quicker for this car.');
  const money = (w: WhatIf, place: MileRecord<'site'>): string | null => {
    const offers = offersAt(place);
    // Somewhere else the same card or plan may have no price of its own: then as a guest.
    const tariff = (offers.find((o) => payerOf(o) === idea.price) ?? offers.find((o) => payerOf(o) === null))?.tariff;
    if (!tariff || w.minutes === null) return null;
    const compiled = compiledOf(tariff);
    const session = exampleStop(place.fields.zone, now(), w.meter_kWh / w.stops, w.minutes / w.stops);
    if (cannotPrice(compiled, session).length > 0) return null;
    const { total, currency } = billWords(billOf(compiled, session), place.fields.zone);
    const one = printMoney(total, currency);
    return w.stops > 1 ? `${w.stops} × ${one}` : one;
  };
  return {
    ...page,
    rows: rows.map((w) => {
      const there = open.find((s) => s.id === w.elsewhere);
      return { ...w, money: money(w, (there && siteOf.get(there.fields.siteId)) ?? site) };
    }),
    words,
  };
}

/** What a stop at direct current rests on. @param mostKW that the car takes, where that is on file */
function curveWords(learnt: OwnCurve, typed: number, cold: boolean, mostKW: number | null): string {
  if (isLearnt(learnt)) return `The car’s own ${cold ? 'cold ' : ''}curve, from ${learnt.sessionsUsed.length} sessions.`;
  if (typed > 0)
    return cold ? 'Too few cold sessions to learn from: this is the typed curve, and the cold will make it slower.' : 'The car’s curve as typed in the garage.';
  return mostKW === null
    ? 'No curve of the car: only the stall’s limits are reckoned with. It will be slower, the more so towards full.'
    : `No curve of the car, only that it takes ${printKW(mostKW)} at most: it will be slower towards full.`;
}
const acWords = (plateKW: number, told: boolean): string =>
  told ? AC_BASIS : `How much alternating current the car takes is not on file: reckoned with the post’s ${printKW(plateKW)}. Most cars take less.`;
