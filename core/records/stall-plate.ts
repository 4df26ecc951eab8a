import { printKW } from '../units/print';
import type { RecordFields } from './record-schema';

type Outlets = Pick<RecordFields<'stall'>, 'outlets'>;

/** The greatest kW on the stall's plate; for one connector, of its outlet. */
export function plateKW(stall: Outlets, connector?: string | null): number | null {
  const own = stall.outlets.filter((o) => o.connector === connector);
  const kW = (own.length > 0 ? own : stall.outlets).map((o) => o.ratedKW);
  return kW.length > 0 ? Math.max(...kW) : null;
}

/** `150 kW CCS2`, `50 kW CCS2 and CHAdeMO`, `50 kW CCS2, 22 kW Type 2`. */
export function plateText(stall: Outlets): string {
  const byKW = new Map<number, string[]>();
  for (const o of stall.outlets) byKW.set(o.ratedKW, [...(byKW.get(o.ratedKW) ?? []), o.connector]);
  return [...byKW].map(([kW, connectors]) => `${printKW(kW)} ${[...new Set(connectors)].join(' and ')}`).join(', ');
}

type Named = { fields: { name: string } };
/** Stalls in the order of their posts: 2 before 10. */
export const byPost = (a: Named, b: Named): number => a.fields.name.localeCompare(b.fields.name, 'en', { numeric: true });
