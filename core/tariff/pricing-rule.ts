import type { CompiledTariff } from './compiled-tariff';

/** Zones of the countries in which a rule holds. */
const EU_ZONES = new Set(
  'Amsterdam Athens Berlin Bratislava Brussels Bucharest Budapest Copenhagen Dublin Helsinki Lisbon Ljubljana Luxembourg Madrid Malta Paris Prague Riga Rome Sofia Stockholm Tallinn Vienna Vilnius Warsaw Zagreb Mariehamn'
    .split(' ')
    .map((city) => `Europe/${city}`)
    .concat('Asia/Nicosia'),
);
const UK_ZONES = new Set(['Europe/London', 'Europe/Belfast']);
/** From when on they hold; from memory. */
const EU_FROM = '2024-04-13';
const UK_FROM = '2024-11-24';

/**
 * Whether this way of charging may not be allowed at a place, as a question. In the EU the price for guests at points of 50 kW and more put up from 13 April 2024 on is
 * to be per kWh, with a fee a minute for standing there at most (Regulation (EU) 2023/1804, Article 5); in the UK the total is to be shown in pence per kWh (Public Charge Point
 * Regulations 2023, from 24 November 2024). Both from memory; whether a point falls under them nobody can see from the ledger.
 * @param mostKW on the plate; `null`: not noted @param day ISO
 */
export function pricingRuleQuestion(t: CompiledTariff, place: { zone: string; mostKW: number | null }, day: string): string | null {
  const has = (type: string) => t.components.some((c) => c.type === type && !c.price.equals(0));
  const perKWh = has('ENERGY');
  const perMinute = has('TIME') || t.extra.power_time !== undefined;
  if (EU_ZONES.has(place.zone) && day >= EU_FROM && (place.mostKW ?? 0) >= 50 && perMinute)
    return 'May a guest be asked a price a minute of charging here? At points of 50 kW and more put up since 13 April 2024 the EU’s rule (2023/1804, Art. 5) knows a price per kWh, and a fee for standing on.';
  if (UK_ZONES.has(place.zone) && day >= UK_FROM && !perKWh && perMinute)
    return 'May this be priced by the minute alone? Since 24 November 2024 the UK’s rule is a price in pence per kWh.';
  return null;
}
