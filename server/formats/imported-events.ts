import { parse, v5 } from 'uuid';
import { grouped } from '@/core/units/grouped';
import type { Precision, StoredEvent } from '@/core/visit/event';
import type { Member } from '../accounts/who';
import { now } from '../clock';
import { checkMade, type MadeEvents, takeMade } from '../outbox/take-batch';

/** Ids that come of what a file says: the same thing said is the same event, in whichever file it stands. RFC 9562, version 5. */
const NAMESPACE = parse('6ba7b811-9dad-11d1-80b4-00c04fd430c8');
export const idOf = (householdId: string, name: string): string => v5(Buffer.from(`${householdId} ${name}`), NAMESPACE);

export type Imported = {
  id: string;
  visitId: string;
  zone: string;
  seq: number;
  kind: string;
  payload: Record<string, unknown>;
  importId: string;
  /** UTC ms; now where nothing says when. */
  at?: number;
  precision?: Precision;
};

/** An event as an import writes it. */
export const importedEvent = (who: Member, e: Imported): StoredEvent => ({
  id: e.id,
  householdId: who.householdId,
  personId: who.personId,
  visitId: e.visitId,
  kind: e.kind,
  v: 1,
  at: e.at ?? now(),
  precision: e.precision ?? 'ms',
  zone: e.zone,
  // An import is a device of its own: it has no page whose clock could be compared with a phone's.
  deviceId: e.importId,
  life: e.importId,
  mono: 0,
  awake: false,
  seq: e.seq,
  origin: 'imported',
  role: 'recorder',
  payload: e.payload,
});

/** Events of one transaction: what it costs besides them is paid once. */
const PORTION = 2_000;
/** Of the first fewer: the database waits for it. */
const FIRST = 500;

/** What was written: how many events were not there before, and the visits of which something was refused. */
export type Sent = { taken: number; refused: Set<string> };

/** Writes events, those of one visit together: a visit comes in whole or not at all. @param figures as takeMade has it */
export const sendImported = (who: Member, events: readonly StoredEvent[], figures: 'now' | 'later' = 'now'): Promise<Sent> =>
  sendVisits(who, grouped(events, (e) => e.visitId).values(), figures);

/** The same of events that are made as they are written. @param visits all events of each, in one piece */
export async function sendVisits(who: Member, visits: Iterable<readonly StoredEvent[]>, figures: 'now' | 'later'): Promise<Sent> {
  let taken = 0;
  const refused = new Set<string>();
  const write = async (visitOf: readonly string[], checked: MadeEvents) => {
    const results = await takeMade(who, checked, figures);
    taken += results.filter((r) => r.status === 'taken').length;
    for (const [i, r] of results.entries()) {
      if (r.status !== 'refused') continue;
      refused.add(visitOf[i] as string);
      console.error(`something imported was refused: ${r.path} ${r.reason}`);
    }
  };
  // While the database writes one, the next is made and checked.
  let writing = Promise.resolve();
  for (const batch of portions(visits)) {
    const checked = await checkMade(batch);
    await writing;
    writing = write(
      batch.map((e) => e.visitId),
      checked,
    );
    // It is awaited above and below, and throws there.
    writing.catch(() => {});
  }
  await writing;
  return { taken, refused };
}

function* portions(visits: Iterable<readonly StoredEvent[]>): Generator<StoredEvent[]> {
  let batch: StoredEvent[] = [];
  let size = FIRST;
  for (const events of visits) {
    batch.push(...events);
    if (batch.length < size) continue;
    yield batch;
    batch = [];
    size = PORTION;
  }
  if (batch.length > 0) yield batch;
}
