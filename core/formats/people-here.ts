import { readCompareAsk, writeCompareAsk } from '../compare/compare-address';
import type { Watch } from '../compare/watch';
import { GROUPINGS } from '../figures/groupings';

/** Who somebody of a ledger's file is here; `null`: it was not said. */
export type PersonHere = (id: unknown) => string | null;
type Payload = Readonly<Record<string, unknown>>;

const isObject = (v: unknown): v is Payload => typeof v === 'object' && v !== null && !Array.isArray(v);
/** The one field by which an event names somebody beside who wrote it. */
const drivenBy = (of: Payload, here: (id: unknown) => unknown): Payload => (Object.hasOwn(of, 'drivenBy') ? { ...of, drivenBy: here(of.drivenBy) } : of);
const throughout = (payload: Payload, here: (id: unknown) => unknown): Payload => {
  const own = drivenBy(payload, here);
  return isObject(own.set) ? { ...own, set: drivenBy(own.set, here) } : own;
};

/** What an event says with who drove as they are known here, where it was noted or corrected; somebody of whom it was not said stays a stranger. */
export const payloadHere = (payload: Payload, personHere: PersonHere): Payload => throughout(payload, (id) => personHere(id) ?? id);

/** What an event says whoever drove: by this an event is the same though its people were said to be others. */
export const payloadOfNobody = (payload: Payload): Payload => throughout({ drivenBy: null, ...payload }, () => null);

/** The address of a comparison of a driver's visits, as the driver is known here; `null`: it was not said who that is. */
export function addressHere(address: string, personHere: PersonHere): string | null {
  const q = new URLSearchParams(address.replace(/^\?/, ''));
  const ask = readCompareAsk((name) => q.get(name));
  const { driver, ...filter } = ask.filter;
  if (driver === undefined) return writeCompareAsk(ask);
  const known = personHere(driver);
  return known === null ? null : writeCompareAsk({ ...ask, filter: { ...filter, driver: known } });
}

/** A pair on watch with its drivers as they are known here, in the order in which a pair is kept; `null`: it was not said who both are, or they are one. */
export function pairHere<W extends Pick<Watch, 'by' | 'a' | 'b'>>(watch: W, personHere: PersonHere): W | null {
  if (GROUPINGS[watch.by].named !== 'person') return watch;
  const [a, b] = [watch.a, watch.b].map(personHere).sort();
  return typeof a === 'string' && typeof b === 'string' && a !== b ? { ...watch, a, b } : null;
}
