import { csvFormatRows } from 'd3-dsv';
import { csvText } from '../units/csv-text';
import { minorDigits } from '../units/money';
import { PARTS, type StopAt } from './same-stop';

/** One stop at every site, as RFC 4180 has it; what is not known is empty, with its reason. */
export function sameStopCsv(rows: readonly (StopAt & { name: string; network: string })[], currency: string): string {
  const head = [
    'site',
    'network',
    'kWh',
    'minutes',
    `guest ${currency}`,
    `with plan ${currency}`,
    'plan',
    'price from',
    `before ${currency}`,
    ...PARTS.map((p) => `${p} ${currency}`),
    'why no price',
  ];
  return csvFormatRows([
    head,
    ...rows.map((r) => {
      const cost = r.guest ?? r.held;
      return [
        csvText(r.name),
        csvText(r.network),
        r.minutes ? r.minutes.kWh.toFixed(3) : '',
        r.minutes ? r.minutes.minutes.toFixed(1) : '',
        r.guest?.total ?? '',
        r.held?.total ?? '',
        csvText(r.held?.name ?? ''),
        cost?.since ?? '',
        cost?.before ?? '',
        ...PARTS.map((p) => cost?.parts.find(([q]) => q === p)?.[1].toFixed(minorDigits(currency)) ?? ''),
        r.why ?? '',
      ];
    }),
  ]);
}
