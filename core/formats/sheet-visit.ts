import { MEANS_KIND_NAMES, type MeansKind } from '../records/means-kind';
import { unkeepable } from '../units/keepable-json';
import { type Payload, payloadProblem } from '../visit/payloads';
import { type TypedEvent, typedVisit } from '../visit/typed-visit';
import { fold } from './match-sessions';
import type { SheetRow } from './sheet-row';

/** What a row tells of a visit. A refund is of a visit that stands elsewhere; where neither energy nor money is told nobody knows whether it charged. */
export type RowTells = 'charged' | 'failed' | 'refund' | 'nothing';

export function rowTells(row: SheetRow): RowTells {
  // Only their signs are asked, of a hundred thousand rows.
  const [kWh, amount] = [row.kWh === null ? null : Number(row.kWh), Number(row.amount ?? 0)];
  if (amount < 0) return 'refund';
  if (kWh !== null) return kWh > 0 ? 'charged' : 'failed';
  return amount > 0 || (row.socFrom !== null && row.socTo !== null && row.socTo > row.socFrom) ? 'charged' : 'nothing';
}

/** What makes a row the same row in another file: the same words in another place of it say nothing new. */
export const rowKey = (row: SheetRow): string => JSON.stringify([fold(row.site), fold(row.stall ?? ''), row.start, row.end, row.kWh, row.amount, row.currency]);

/** True for a row that says what was paid: beside a recorded visit it is a bill. */
export const rowBills = (row: SheetRow): boolean => row.amount !== null && row.currency !== null && !(Number(row.amount) < 0);

/** What of a row is kept with what it becomes. */
const keptOf = (row: SheetRow, importId: string, car: boolean) => ({
  import: importId,
  line: row.line,
  ...(row.car !== null && car ? { car: row.car } : {}),
  ...(row.minutes !== null ? { minutes: row.minutes } : {}),
  ...(row.perKWh !== null ? { perKWh: row.perKWh } : {}),
  ...(Object.keys(row.rest).length > 0 ? { rest: row.rest } : {}),
});

/** A row as the bill of a visit that is recorded: its figures beside the driver's, never in their place. @param session the attempt it is for */
export const rowBill = (row: SheetRow, session: string | null, importId: string): Payload<'bill'> & { import: string; sheet: object } => ({
  sessions: session ? [session] : [],
  amount: row.amount as string,
  currency: row.currency as string,
  ...(row.kWh === null ? {} : { kWh: row.kWh }),
  ...(row.minutes === null ? {} : { minutes: row.minutes }),
  state: 'charged',
  import: importId,
  sheet: { ...keptOf(row, importId, true), start: row.start, end: row.end, ...(row.note ? { note: row.note } : {}) },
});

/**
 * The events of the visit that a row tells of, with only what it tells. Times have the row's precision; what it tells no time of stands
 * in its order. What has no field of its own is kept with the first event.
 * @param noon of the day at the site, UTC ms, of a row that tells no time
 */
export function rowEvents(row: SheetRow, refs: { siteId: string; stallId: string | null; carId: string | null }, noon: number, importId: string): TypedEvent[] {
  const charged = rowTells(row) === 'charged';
  const timed = row.startPrecision !== 'day';
  const meansKind = (MEANS_KIND_NAMES as readonly string[]).includes(row.means ?? '') ? (row.means as MeansKind) : null;
  const typed = typedVisit({
    siteId: refs.siteId,
    stallId: refs.stallId,
    carId: refs.carId,
    drivenBy: null,
    day: noon,
    pulledIn: null,
    plugged: timed ? row.start : null,
    powerSeen: null,
    stopped: timed && charged ? row.end : null,
    pulledOut: null,
    meansKind,
    meansId: null,
    handshake_s: charged ? row.handshake_s : null,
    socFrom: row.socFrom,
    socTo: charged ? row.socTo : null,
    kWh: charged ? row.kWh : null,
    // They are kept with the row as it stands.
    minutes: null,
    amount: row.amount !== null && row.currency !== null && Number(row.amount) > 0 ? row.amount : null,
    currency: row.currency ?? '',
    fault: null,
    charged,
    reason: charged ? 'enough' : 'gave_up',
    note: row.note,
  });
  const kept = keptOf(row, importId, refs.carId === null);
  const out: TypedEvent[] = [];
  const push = (e: TypedEvent) => {
    const told = timed && e.kind === 'plugged' ? row.start : timed && e.kind === 'stop_asked' ? row.end : null;
    out.push({ ...e, at: told ?? e.at, precision: e.precision === 'min' && timed ? row.startPrecision : e.precision } as TypedEvent);
  };
  for (const e of typed) {
    if (e.kind !== 'pulled_in') {
      push(e);
      continue;
    }
    push({ ...e, payload: { ...e.payload, sheet: kept } } as TypedEvent);
    if (refs.stallId === null && row.stall !== null) push({ kind: 'stall_named', payload: { text: row.stall }, at: e.at, precision: 'day' });
    // No energy at all is an attempt that failed: somebody came, tried and left.
    if (!charged) push({ kind: 'plugged', payload: {}, at: timed ? row.start : e.at, precision: timed ? 'min' : 'day' });
    if (!charged && meansKind) push({ kind: 'means_shown', payload: { meansKind }, at: e.at, precision: 'day' });
  }
  // Energy was billed: power was on, at a time that no row tells. It stands before the stop.
  if (charged && !out.some((e) => e.kind === 'power_seen')) {
    const stop = out.findIndex((e) => e.kind === 'reading' || e.kind === 'stop_asked' || e.kind === 'pulled_out');
    out.splice(stop, 0, { kind: 'power_seen', payload: { screen: 'stall', mark: 'kW', late: true }, at: (out[stop - 1] as TypedEvent).at, precision: 'day' });
  }
  return out;
}

/** An event's payload is kept up to 64 kB; a letter is three bytes at most. */
const MOST_LETTERS = 20_000;
const NO_ONE = '00000000-0000-7000-8000-000000000000';
/** Whether the record can keep all that a row tells: a visit comes in whole or not at all. */
export const rowKeepable = (row: SheetRow): boolean =>
  rowEvents(row, { siteId: NO_ONE, stallId: null, carId: null }, row.start, NO_ONE).every(
    (e) => payloadProblem(e.kind, e.payload) === null && unkeepable(e.payload, '') === null && JSON.stringify(e.payload).length <= MOST_LETTERS,
  );
