import { FAULTS } from '../faults/fault-list';
import { isId } from '../units/id';
import type { EndMark } from '../visit/attempts';
import { POWER_TIMES, type PowerTime } from './visit-row';

/**
 * Which visits a list shows. Lives in the address, so that every number in a comparison can open exactly the
 * visits it was counted from. `counted` names the population of such a number.
 */
export const COUNTED = ['attempted', 'first_yes', 'first_no', 'first_left_out', 'timed', 'never', 'lost', 'priced'] as const;
export type Counted = (typeof COUNTED)[number];
export type LedgerFilter = { network?: string; site?: string; car?: string; faults?: 'any' | string; counted?: Counted; time: PowerTime; mark: EndMark };

export const END_MARKS = ['kW', 'kWh', 'A'] as const satisfies readonly EndMark[];
/** What a counted population is called above the list. */
export const COUNTED_LABELS: Record<Counted, string> = {
  attempted: 'with an attempt',
  first_yes: 'started at the first try',
  first_no: 'did not start at the first try',
  first_left_out: 'left out of the first try',
  timed: 'with a timed start',
  never: 'with an attempt that never got power',
  lost: 'lost time known',
  priced: 'in the all-in price',
};

const oneOf = <T extends string>(list: readonly T[], value: string | null | undefined): T | undefined => list.find((x) => x === value);
const codes = FAULTS.map((f) => f.code);

/** Reads a filter from an address. What is not understood is left out, never an error: addresses get mistyped. */
export function readLedgerFilter(get: (name: string) => string | null | undefined): LedgerFilter {
  const id = (name: string) => {
    const v = get(name);
    return isId(v) ? v : undefined;
  };
  const faults = get('faults');
  const filter: LedgerFilter = { time: oneOf(POWER_TIMES, get('time')) ?? 'handshake', mark: oneOf(END_MARKS, get('mark')) ?? 'kW' };
  const network = id('network');
  const site = id('site');
  const car = id('car');
  const counted = oneOf(COUNTED, get('counted'));
  if (network) filter.network = network;
  if (site) filter.site = site;
  if (car) filter.car = car;
  if (faults === 'any' || (faults && codes.includes(faults))) filter.faults = faults;
  if (counted) filter.counted = counted;
  return filter;
}

/** The address of a filter, `''` when it holds everything; defaults are not written. */
export function writeLedgerFilter(f: Partial<LedgerFilter>): string {
  const q = new URLSearchParams();
  for (const name of ['network', 'site', 'car', 'faults', 'counted'] as const) if (f[name]) q.set(name, f[name]);
  if (f.time && f.time !== 'handshake') q.set('time', f.time);
  if (f.mark && f.mark !== 'kW') q.set('mark', f.mark);
  const text = q.toString();
  return text === '' ? '' : `?${text}`;
}
