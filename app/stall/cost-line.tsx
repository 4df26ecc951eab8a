'use client';
import { useMemo } from 'react';
import { phoneNow } from '@/client/touch/touch-time';
import { costSoFar, pricesFrom } from '@/core/tariff/cost-so-far';
import { costWords, priceNowWords } from '@/core/tariff/cost-words';
import { compiledOf } from '@/core/tariff/tariff-object';
import type { Live, LiveFacts } from './live-facts';

/** How long a figure stands before the clock alone makes it anew. */
const STEP_MS = 10_000;
const nowInSteps = () => Math.floor(phoneNow() / STEP_MS) * STEP_MS;

/** A stall whose plate is not noted: a price by power is asked for this much. A choice. */
const USUAL_KW = 50;
type Asked = { visit: Live['visit']; facts: Pick<LiveFacts, 'offers' | 'tariff' | 'ratedKW'> };

/**
 * What the visit has cost by the whole of each price, and what comes next; before that what is asked here, of guests and by each plan and provider, with the age of each.
 * Nothing while too little is known to say so.
 */
export function CostLine({ visit, facts: { offers, ratedKW } }: Asked) {
  const now = nowInSteps();
  const said = useMemo(() => {
    if (visit.attempts.every((a) => !a.proof)) return offers.flatMap((o) => pricesWords(o, visit.zone, now, ratedKW ?? USUAL_KW, true)).join('. ');
    const costs = offers.flatMap(({ tariff, by }) => {
      const cost = costSoFar(compiledOf(tariff), visit, now);
      return cost.known ? [{ cost: cost.value, by }] : [];
    });
    return costWords(costs, visit.zone);
  }, [visit, offers, ratedKW, now]);
  return said ? <p className="border-b border-rule bg-card px-4 py-1 text-[14px] font-semibold">{said}</p> : null;
}

/** The price by which this visit goes, with its age, in the head. */
export function PriceHere({ visit, facts: { offers, tariff, ratedKW } }: Asked) {
  const now = nowInSteps();
  const said = useMemo(
    () => offers.flatMap((o) => (o.tariff === tariff ? pricesWords(o, visit.zone, now, ratedKW ?? USUAL_KW, false) : [])),
    [visit.zone, offers, tariff, ratedKW, now],
  );
  return said.map((text) => <span key={text}>, {text}</span>);
}

/** @param whole with the fee of the start, which a price of starts alone says anyway */
function pricesWords({ tariff, by }: LiveFacts['offers'][number], zone: string, now: number, kW: number, whole: boolean): string[] {
  const prices = pricesFrom(compiledOf(tariff), zone, now, kW);
  if (!prices.known) return [];
  const { perKWh, perMin } = prices.value.now;
  const start = whole || (perKWh === null && perMin === null) ? prices.value.start : null;
  return [priceNowWords({ ...prices.value, start }, { currency: tariff.currency, since: tariff.validFrom, by }, zone)];
}
