import { csvFormatRows } from 'd3-dsv';
import { csvText } from '../units/csv-text';
import { type DistanceUnit, KM_PER_MILE } from '../units/distance';
import { minorDigits, printMoney, printPerKWh } from '../units/money';
import { printConsumption, printCount, printKWh } from '../units/print';
import type { AllIn, Yields } from './all-in';

/** Money for 100 of the reader's distance. @param per100km amount for 100 km */
export const per100 = (per100km: number, unit: DistanceUnit): number => (unit === 'mi' ? per100km * KM_PER_MILE : per100km);

type Context = { currency: string; distance: DistanceUnit };

/** What charging came to, in one sentence, by what it was worked out. */
export function allInSentence(all: AllIn | null, use: { kWhPer100km: number; by: 'measured' | 'noted' } | null, { currency, distance }: Context): string {
  if (!all) return 'No charge of the last twelve months has both its kWh and its bill: there is nothing to work out yet.';
  const of = `${printPerKWh(String(all.perKWh), currency)} per kWh with fees, over ${printKWh(String(all.kWh))} of ${printCount(all.visits, 'billed charge')}`;
  if (!use || all.per100km === null) return `${of}. What 100 ${distance} cost is told once the car’s consumption is noted.`;
  const consumption = printConsumption(use.kWhPer100km, distance === 'mi' ? 'mi/kWh' : 'kWh/100 km');
  return `${of}: ${printMoney(String(per100(all.per100km, distance)), currency)} for 100 ${distance} at ${consumption}, ${use.by === 'measured' ? 'as measured on the way' : 'as noted with the car'}.`;
}

/** What of the metered energy comes into the battery, and how that is known. */
export const yieldWords = (y: Yields): string =>
  (['dc', 'ac'] as const)
    .map((c) => `${c.toUpperCase()} ${Math.round(y[c].of * 100)} %, ${y[c].own ? `by ${printCount(y[c].n, 'own charge')}` : 'as is usual'}`)
    .join('; ');

/** The networks beside each other as RFC 4180 has it. */
export function allInCsv(rows: readonly (AllIn & { name: string })[], { currency, distance }: Context): string {
  const head = [
    'network',
    'billed charges',
    'kWh',
    `paid ${currency}`,
    `${currency} per kWh`,
    `${currency} per kWh in the battery`,
    `${currency} per 100 ${distance}`,
    `${currency} per 100 ${distance} with the time`,
    'hours at the site',
    'kWh of a stop, median',
    'hour of a stop, median',
  ];
  const cell = (n: number | null, places: number) => (n === null ? '' : n.toFixed(places));
  return `${csvFormatRows([
    head,
    ...rows.map((r) => [
      csvText(r.name),
      String(r.visits),
      cell(r.kWh, 3),
      cell(r.paid, minorDigits(currency)),
      cell(r.perKWh, 4),
      cell(r.perBatteryKWh, 4),
      cell(r.per100km === null ? null : per100(r.per100km, distance), Math.max(2, minorDigits(currency))),
      cell(r.time.per100km === null ? null : per100(r.time.per100km, distance), Math.max(2, minorDigits(currency))),
      cell(r.time.hours, 2),
      cell(r.stop.kWh, 1),
      r.stop.hour === null ? '' : String(r.stop.hour),
    ]),
  ])}\n`;
}
