import { FAULTS, SIDES, type Side } from '../faults/fault-list';
import { POPULATION_NAMES, POWER_TIMES, type Population, type PowerTime } from '../figures/populations';
import { isId } from '../units/id';
import type { EndMark } from '../visit/attempts/attempt';

/**
 * Which visits a list shows. Lives in the address, so that every number in a comparison can open exactly the
 * visits it was counted from. `counted` names the population of such a number, `without` the side whose faults it leaves out.
 */
export type LedgerFilter = {
  network?: string;
  site?: string;
  car?: string;
  faults?: 'any' | string;
  counted?: Population;
  without?: Side;
  time: PowerTime;
  mark: EndMark;
};

export const END_MARKS = ['kW', 'kWh', 'A'] as const satisfies readonly EndMark[];

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
  const counted = oneOf(POPULATION_NAMES, get('counted'));
  const without = oneOf(SIDES, get('without'));
  if (network) filter.network = network;
  if (site) filter.site = site;
  if (car) filter.car = car;
  if (faults === 'any' || (faults && codes.includes(faults))) filter.faults = faults;
  if (counted) filter.counted = counted;
  if (without) filter.without = without;
  return filter;
}

/** The address of a filter, `''` when it holds everything; defaults are not written. */
export function writeLedgerFilter(f: Partial<LedgerFilter>): string {
  const q = new URLSearchParams();
  for (const name of ['network', 'site', 'car', 'faults', 'counted', 'without'] as const) if (f[name]) q.set(name, f[name]);
  if (f.time && f.time !== 'handshake') q.set('time', f.time);
  if (f.mark && f.mark !== 'kW') q.set('mark', f.mark);
  const text = q.toString();
  return text === '' ? '' : `?${text}`;
}
