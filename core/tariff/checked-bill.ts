import type { MileRecord } from '../records/record-schema';
import { plateKW } from '../records/stall-plate';
import type { Maybe } from '../units/known';
import { toMinor } from '../units/money';
import { localDay } from '../units/zoned';
import { forCharging, kWhBilledForAll, paidOf } from '../visit/billed';
import type { Visit } from '../visit/derive';
import { chosenStall } from '../visit/receipt-alone';
import type { Bill } from './bill';
import { type Explanation, explainBill } from './bill-check';
import { billDifference } from './bill-difference';
import { draftQuery } from './bill-query';
import { type BillWords, billWords, sumOfBills } from './bill-words';
import { type ChargedAttempt, chargedAttempts, visitBills } from './charged-visit';
import { pricingRuleQuestion } from './pricing-rule';
import { compiledOf } from './tariff-object';
import { type KeptTariff, offersOn, type Payer, payerName, providersOf, takenOf, tariffOn } from './tariff-on';

/** A bill set against the price on file on that day. Amounts are decimal strings, tax in. */
export type CheckedBill =
  | {
      /** The price that was taken: for guests, or the name of the plan or provider; and from when it is. */
      by: string;
      since: string;
      tariffId: string;
      currency: string;
      lines: BillWords[];
      total: string;
      tax: string | null;
      difference: Maybe<string> | null;
      explanations: Explanation[];
      /** What the same would cost as a guest, where that is not what was taken. */
      guest: string | null;
      question: string | null;
      query: string | null;
    }
  | { unpriced: string };

/** The records that a bill is held against. `tariffs`: every price of the network; `sites`: those that have one of their own. */
export type BillRecords = {
  site: MileRecord<'site'>;
  network: string;
  stalls: readonly MileRecord<'stall'>[];
  tariffs: readonly MileRecord<'tariff'>[];
  sites: readonly MileRecord<'site'>[];
  plans: readonly MileRecord<'plan'>[];
  means: readonly MileRecord<'means'>[];
  providers: readonly MileRecord<'provider'>[];
};

type Found = {
  taken: { payer: Payer; tariff: KeptTariff };
  attempts: ChargedAttempt[];
  bills: Bill[];
  apart: boolean;
  total: string;
  paid: ReturnType<typeof paidOf>;
};

/**
 * The price that a visit is held against and what it makes of it: by a plan held that day where there is a price for it, else through the provider of the means
 * that was accepted, else as a guest. `null`: no price is kept. Without sessions there are no bills.
 */
function priced(visit: Visit, around: PriceRecords): Found | { unpriced: string } | null {
  const { site, tariffs, plans, means } = around;
  const day = localDay(visit.pulledInAt ?? visit.lastEventAt, visit.zone);
  // A receipt alone says by its bill what was paid with.
  const accepted =
    visit.attempts.length > 0 ? visit.attempts.map((a) => a.accepted?.meansId ?? a.shows.at(-1)?.meansId) : visit.bills.map((b) => b.payload.meansId);
  const taken = takenOf(offersOn(tariffs, plans, providersOf(means, accepted), { siteId: site.id, networkId: site.fields.networkId }, day));
  if (!taken) return null;
  const charging = forCharging(visit.bills);
  const paid = paidOf(charging);
  const attempts = chargedAttempts(visit);
  if (!attempts.known) return { unpriced: attempts.why };
  if (attempts.value.length === 0 && !(nothingCame(visit) && paid.known))
    return visit.bills.length > 0 ? { unpriced: paid.known ? 'no charge was noted that it could be for' : paid.why } : null;
  if (attempts.value.length === 0) return { taken, attempts: [], bills: [], apart: false, total: toMinor('0', taken.tariff.currency), paid };
  const bills = visitBills(compiledOf(taken.tariff), attempts.value);
  if (!bills.known) return { unpriced: bills.why };
  const apart = charging.filter((b) => b.payload.state !== 'refunded').length >= bills.value.length;
  return { taken, attempts: attempts.value, bills: bills.value, apart, total: sumOfBills(bills.value, apart), paid };
}

/** Every try failed or was given up: nothing that a price is of was delivered. */
const nothingCame = (visit: Visit): boolean =>
  visit.attempts.length > 0 && visit.attempts.every((a) => a.outcome.kind === 'failed' || a.outcome.kind === 'gave_up');

/** What of the records the sums alone rest on. */
export type PriceRecords = Pick<BillRecords, 'site' | 'tariffs' | 'plans' | 'means'>;
/** What a visit should come to by the price on file on its day, and by how much more was charged; `null`: nothing was, or it cannot be told. */
export type BillTotals = { currency: string; total: string; difference: Maybe<string> | null };
/** The sums of [checkedBill] without the lines and what explains a difference, which is sought at every site of a network. `null`: no price is kept. */
export function billTotals(visit: Visit, around: PriceRecords): BillTotals | { unpriced: string } | null {
  const found = priced(visit, around);
  if (!found || 'unpriced' in found) return found;
  const { taken, total, paid } = found;
  const { currency } = taken.tariff;
  return { currency, total, difference: paid.known ? billDifference({ lines: [], total, currency }, paid.value) : null };
}

/** Whether what was charged is what the price on file makes, to the minor unit; `null`: no bill, or none that can be held against a price. */
export function billVerdict(visit: Visit, around: PriceRecords): 'right' | 'off' | null {
  const totals = visit.bills.length === 0 ? null : billTotals(visit, around);
  if (!totals || 'unpriced' in totals || !totals.difference?.known) return null;
  return Number(totals.difference.value) === 0 ? 'right' : 'off';
}

/** What a visit should cost by the price on file on its day, line by line, beside what was charged. `null`: no price is kept. */
export function checkedBill(visit: Visit, around: BillRecords): CheckedBill | null {
  const { site, tariffs, plans, providers, stalls, sites } = around;
  const at = visit.pulledInAt ?? visit.lastEventAt;
  const day = localDay(at, visit.zone);
  const place = { siteId: site.id, networkId: site.fields.networkId };
  const found = priced(visit, around);
  if (!found || 'unpriced' in found) return found;
  const { taken, attempts, bills, apart, total, paid } = found;
  const { tariff } = taken;
  const { currency } = tariff;
  const by = payerName(taken.payer, { plans, providers }) ?? 'guest';
  if (attempts.length === 0) return nothingDelivered(visit, around, tariff, by, paid);
  const charging = forCharging(visit.bills);
  const compiled = compiledOf(tariff);
  const timed = attempts.every((a) => a.timed);
  const words = bills.map((b) => billWords(b, timed ? visit.zone : null));
  const difference = paid.known ? billDifference({ lines: [], total, currency }, paid.value) : null;
  const guestTariff = taken.payer.planId || taken.payer.providerId ? (tariffOn(tariffs, place, day) ?? null) : null;
  const guest = guestTariff ? visitBills(compiledOf(guestTariff), attempts) : null;
  const off = difference?.known && Number(difference.value) !== 0;
  const shown = visit.line.findLast((e) => e.kind === 'price_shown' && e.payload.perKWh !== undefined && (e.payload.currency ?? currency) === currency);
  const stallName = (id: string | null) => stalls.find((r) => r.id === id)?.fields.name ?? '';
  const explanations =
    off && paid.known
      ? explainBill({
          tariff: compiled,
          attempts: attempts,
          failed: visit.attempts.filter((a) => !a.proof && (a.outcome.kind === 'failed' || a.outcome.kind === 'gave_up')).length,
          charged: paid.value.amount,
          apart,
          billedKWh:
            kWhBilledForAll(
              attempts.map((a) => a.n),
              visit.billed,
            ) ?? null,
          asGuest: guestTariff ? compiledOf(guestTariff) : null,
          elsewhere: elsewhere(sites, tariffs, tariff, day),
          shownPerKWh: shown?.kind === 'price_shown' ? (shown.payload.perKWh ?? null) : null,
        })
      : [];
  const lines = words.flatMap((w, i) => (words.length === 1 ? w.lines : w.lines.map((l) => ({ ...l, label: `${l.label}, session ${i + 1}` }))));
  const taxes = words.map((w) => w.tax).filter((t) => t !== null);
  const last = attempts.at(-1)?.session.periods.at(-1)?.end ?? null;
  const first = visit.attempts.find((a) => a.proof);
  const stallId = visit.attempts.length > 0 ? (first?.stallId ?? null) : chosenStall(visit);
  const plate = stalls.find((s) => s.id === stallId);
  return {
    by,
    since: tariff.validFrom,
    tariffId: tariff.id,
    currency,
    lines,
    total,
    tax: taxes.length === 1 ? (taxes[0] ?? null) : null,
    difference,
    explanations,
    guest: guest?.known ? sumOfBills(guest.value, apart) : null,
    question: pricingRuleQuestion(compiled, { zone: visit.zone, mostKW: plate ? plateKW(plate.fields) : null }, day),
    query:
      off && paid.known && !difference.value.startsWith('-')
        ? draftQuery({
            network: around.network,
            site: site.fields.name,
            stall: stallName(stallId),
            zone: visit.zone,
            from: timed ? (attempts[0]?.session.periods[0]?.start ?? null) : at,
            to: timed ? last : null,
            kWh: attempts.length === 1 ? (attempts[0]?.kWh ?? null) : null,
            dayOnly: !timed && visit.dayOnly,
            kWhBy: visit.attempts.length > 0 ? 'stall' : 'receipt',
            charged: paid.value.amount,
            expected: total,
            currency,
            bills: charging.map((b) => ({ amount: b.payload.amount, currency: b.payload.currency, ref: b.payload.ref ?? null })),
            lines,
            explanations,
          })
        : null,
  };
}

/** Every try failed or was given up, and a bill came all the same; `null` where none did, or where it is not over. */
function nothingDelivered(visit: Visit, around: BillRecords, tariff: KeptTariff, by: string, paid: Found['paid']): CheckedBill | null {
  if (!nothingCame(visit) || !paid.known) return null;
  const charging = forCharging(visit.bills);
  const { currency } = tariff;
  const total = toMinor('0', currency);
  const difference = billDifference({ lines: [], total, currency }, paid.value);
  const off = difference.known && Number(difference.value) > 0;
  const explanations: Explanation[] = off
    ? [{ cause: 'failed_billed', fit: 'exact', text: 'No power came, and a bill did: nothing that the price on file is of was delivered.' }]
    : [];
  const at = visit.attempts[0]?.opened.t ?? visit.lastEventAt;
  return {
    by,
    since: tariff.validFrom,
    tariffId: tariff.id,
    currency,
    lines: [],
    total,
    tax: null,
    difference,
    explanations,
    guest: null,
    question: null,
    query: off
      ? draftQuery({
          network: around.network,
          site: around.site.fields.name,
          stall: around.stalls.find((r) => r.id === visit.attempts[0]?.stallId)?.fields.name ?? '',
          zone: visit.zone,
          from: at,
          to: null,
          kWh: '0',
          charged: paid.value.amount,
          expected: total,
          currency,
          bills: charging.map((b) => ({ amount: b.payload.amount, currency: b.payload.currency, ref: b.payload.ref ?? null })),
          lines: [],
          explanations,
        })
      : null,
  };
}

/** Prices for guests of other sites of the network on that day: the bill may be for another stall. */
function elsewhere(sites: BillRecords['sites'], tariffs: BillRecords['tariffs'], taken: KeptTariff, day: string) {
  return sites.flatMap((s) => {
    const other = tariffOn(tariffs, { siteId: s.id, networkId: s.fields.networkId }, day);
    return other && other.id !== taken.id && other.currency === taken.currency ? [{ name: s.fields.name, tariff: compiledOf(other) }] : [];
  });
}
