import { orderAt } from '@/client/store/habits';
import { phoneNow } from '@/client/touch/touch-time';
import { usualHere } from '@/core/compare/usual-handshake';
import { compatibleStalls } from '@/core/power/compatible-stalls';
import { nextTen } from '@/core/power/next-ten';
import { emergencyNumberAt } from '@/core/records/emergency-number';
import { carIsMeans } from '@/core/records/means-kind';
import { plateKW } from '@/core/records/stall-plate';
import { offersOn, payerName, providersOf, takenOf } from '@/core/tariff/tariff-on';
import { localDay } from '@/core/units/zoned';
import { alarms } from '@/core/visit/alarms';
import type { Visit } from '@/core/visit/derive';
import { inDanger, isPlugged, nextAct } from '@/core/visit/next-act';
import { orderInWords } from '@/core/visit/start-order';
import { stayClocks } from '@/core/visit/stay-clocks';
import { currenciesOf } from './money-field';
import type { StallState } from './stall-state';
import { usualMeans } from './usual-means';

export type Live = Extract<StallState, { is: 'ready' }> & { visit: Visit; visitId: string };

/** Everything the live screen shows besides the events themselves, from the phone's own copy. */
export function liveFacts(state: Pick<Live, 'visit' | 'records' | 'who' | 'lately' | 'usual' | 'dangers'>) {
  const { visit, records, who } = state;
  const site = records.site.find((s) => s.id === visit.siteId);
  const network = records.network.find((n) => n.id === site?.fields.networkId);
  const chosenId = visit.line.findLast((e) => e.kind === 'stall_chosen')?.payload.stallId ?? null;
  const stall = records.stall.find((s) => s.id === chosenId);
  const car = records.car.find((c) => c.id === visit.carId);
  const means = usualMeans(visit, records, network?.id);
  const attempt = visit.attempts.at(-1);
  const charging = attempt?.proof && !attempt.ended && !attempt.stopAsked && !attempt.powerGone ? attempt : null;

  const answer =
    stall && site && car
      ? compatibleStalls(
          { car, adapters: records.adapter, means: records.means, enrolments: records.enrolment },
          { site, stalls: [stall], dangers: state.dangers },
          state.lately,
          localDay(phoneNow(), site.fields.zone),
        )[0]
      : undefined;
  const adapter = records.adapter.find((a) => a.id === answer?.way?.adapterId);
  const noted = stall?.fields.orderThatWorks ?? site?.fields.orderThatWorks ?? null;
  const order = orderInWords(noted) ?? (stall ? orderAt(stall.id, network?.id) : null);
  const next = nextAct(visit, { carIsMeans: carIsMeans(means.meansKind), payFirst: order === 'pay_first', adapter: adapter !== undefined });

  const day = localDay(visit.pulledInAt ?? visit.lastEventAt, visit.zone);
  // Who pays through a provider pays its price: with the means of this visit, before one was shown with the usual one.
  const shown = visit.attempts.flatMap((a) => a.accepted?.meansId ?? a.shows.at(-1)?.meansId ?? []);
  const providers = providersOf(records.means, shown.length > 0 ? shown : [means.meansId]);
  const offers = offersOn(records.tariff, records.plan, providers, { siteId: visit.siteId, networkId: network?.id ?? null }, day);
  const tariff = takenOf(offers)?.tariff;
  const said = visit.line.findLast((e) => 'currency' in e.payload && e.payload.currency)?.payload as { currency?: string } | undefined;
  const clocks = stayClocks(visit, {
    maxStay_min: stall?.fields.maxStay_min ?? site?.fields.maxStay_min ?? null,
    // What the sign says goes before what the price on file says.
    overstayAfter_min: site?.fields.overstayAfter_min ?? tariff?.extra?.overstay_fee?.after_minutes ?? null,
    idleGrace_min: site?.fields.idleGrace_min ?? tariff?.extra?.idle_fee?.grace_minutes ?? null,
  });
  const socs = (charging?.readings ?? []).flatMap((r) => (r.socPct === undefined ? [] : [{ t: r.mark.t, socPct: r.socPct }]));
  const kW = charging?.readings.findLast((r) => r.kW !== undefined)?.kW ?? null;
  const ten = nextTen(socs, kW, car?.fields.usableKWh ?? null);
  const waiting = attempt !== undefined && !attempt.ended && !attempt.proof;
  const lastShow = attempt?.shows.at(-1)?.place;
  return {
    site,
    network,
    stall,
    chosenId,
    car,
    means,
    attempt,
    charging,
    adapter,
    noted,
    next,
    /** Where an arrival at a place without a name was, as far as it was noted. */
    position: visit.line.find((e) => e.kind === 'pulled_in')?.payload.position ?? null,
    /** The number for an emergency here. */
    emergency: emergencyNumberAt(site?.fields ?? null, visit.zone, who.wishes.emergencyNumber),
    helpline: site?.fields.helpline ?? network?.fields.helpline ?? null,
    inDanger: inDanger(visit),
    /** The means was shown, and nothing told yet whether it was taken. */
    waitsForAnswer: waiting === true && !attempt.accepted && lastShow !== undefined && (attempt.refusals.at(-1)?.place ?? Number.NEGATIVE_INFINITY) < lastShow,
    /** What a fault noted now is about. */
    phase: charging ? ('charging' as const) : attempt?.proof && (!attempt.ended || isPlugged(visit)) ? ('stopping' as const) : ('starting' as const),
    /** The day of the visit at the place: a price that is read on it holds from then on, also after midnight. */
    day,
    /** The price that this visit is held against: by a plan held, else through a provider, else for guests. */
    tariff,
    /** Every price that can be paid by here today: for guests first, `by` is what the plan or provider is called. */
    offers: offers.map((o) => ({ tariff: o.tariff, by: payerName(o.payer, { plans: records.plan, providers: records.provider }) })),
    /** What is paid in here: as somebody said on this visit, else as the price on file. */
    currency: said?.currency ?? tariff?.currency ?? who.currency,
    currencies: currenciesOf(who.currency, records),
    ratedKW: stall ? plateKW(stall.fields) : null,
    clocks,
    ten,
    alarms: alarms(visit, clocks, ten),
    usual: waiting ? usualHere(state.usual, chosenId, network?.id ?? null, means.meansKind) : null,
  };
}

export type LiveFacts = ReturnType<typeof liveFacts>;
