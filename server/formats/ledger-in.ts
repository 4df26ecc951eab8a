import type { LedgerBatch } from '@/core/formats/ledger-file';
import { type PersonHere, payloadHere, payloadOfNobody } from '@/core/formats/people-here';
import { addedTo, NAMED_BY_OTHERS, twinOf, withIds } from '@/core/formats/twin-record';
import type { ItemResult } from '@/core/protocol/outbox';
import { canonicalJson } from '@/core/records/canonical-json';
import type { RecordChange } from '@/core/records/change-of';
import { ARCHIVED, applyChange, checkChange } from '@/core/records/record-change';
import type { MileRecord } from '@/core/records/record-schema';
import type { RecordType } from '@/core/records/record-types';
import { inReferenceOrder } from '@/core/records/reference-order';
import { checkEvent } from '@/core/visit/check-event';
import type { StoredEvent } from '@/core/visit/event';
import { membersOf } from '../accounts/members';
import type { Member } from '../accounts/who';
import { now } from '../clock';
import { toBin } from '../db/binary-id';
import { inTransaction, pool } from '../db/pool';
import { refreshVisits } from '../figures/refresh';
import { eventItem, takeEvents, takeRecord } from '../outbox/take-batch';
import { writing } from '../outbox/writing';
import { readRecord, recordsOf } from '../records/record-tables';
import { eventsById } from '../visits/event-rows';
import { followJoins } from '../visits/follow-joins';
import { hiddenOf } from '../visits/seen-by';
import { type Extra, type ExtraDiffers, type ExtraResult, member, readMonth, readView, readWatch, takeExtras } from './ledger-extras';

/** How somebody wants a ledger to come in. */
export type LedgerAsk = LedgerBatch & {
  /** Who each of the file's people is here: ids of the file, ids of members. */
  people: Readonly<Record<string, string>>;
  /** Of what differs, by its id here, what of the file is wanted: of a record its fields, `ARCHIVED` one of them; of a pair on watch or a saved comparison all, whatever is named. */
  theirs: Readonly<Record<string, readonly string[]>>;
  /** Ids here of records of the file that are here under another, as told by pieces before; absent: only the same id is the same. */
  same?: Readonly<Record<string, string>> | undefined;
};
type Kind = 'record' | 'event' | 'watch' | 'view' | 'closed';
/** One that is here already and says something else. */
export type Differs =
  | { kind: 'record'; id: string; what: string; here: MileRecord; file: RecordChange }
  /** `file`: the visit it is of. */
  | { kind: 'event'; id: string; what: string; file: string }
  | ExtraDiffers;
export type LedgerTold = {
  /** What came in or would. */
  taken: Readonly<Record<Kind, number>>;
  already: number;
  differs: Differs[];
  refused: { kind: Kind; id: string; path: string; reason: string }[];
  /** Records that are here under another id, and of those that others name which is which, for the pieces that follow. */
  twins: { type: RecordType; name: string }[];
  same: Record<string, string>;
};
/** Far beyond any rev: a field that was chosen is taken whoever changed it since. */
const CHOSEN_REV = Number.MAX_SAFE_INTEGER;

/**
 * A piece of a ledger into a household that is empty or in use. What is here already is told as such; what is here and differs is told with both versions and stays as it is,
 * but for the fields of a record of which the file's version is chosen. An event is never changed. All of a piece that can be written is written in one transaction.
 * @param take false: says what would come of it and changes nothing
 */
export async function takeLedger(who: Member, ask: LedgerAsk, take: boolean): Promise<LedgerTold> {
  const told: LedgerTold & { taken: Record<Kind, number> } = {
    taken: { record: 0, event: 0, watch: 0, view: 0, closed: 0 },
    already: 0,
    differs: [],
    refused: [],
    twins: [],
    same: {},
  };
  const here = new Set((await membersOf(who.householdId)).filter((m) => m.leftAt === null).map((m) => m.personId));
  const personOf: PersonHere = (id) => {
    const mapped = typeof id === 'string' && Object.hasOwn(ask.people, id) ? ask.people[id] : undefined;
    return mapped !== undefined && here.has(mapped) ? mapped : null;
  };
  const refuse = (kind: Kind, id: string, path: string, reason: string) => void told.refused.push({ kind, id, path, reason });

  const changes: RecordChange[] = [];
  for (const raw of ask.records) {
    const check = checkChange(asNew(raw));
    if (!check.ok) refuse('record', idOf(raw), check.path, check.reason);
    else changes.push(check.change);
  }
  const events: (StoredEvent & { heard_ms?: number })[] = [];
  for (const raw of ask.events) {
    const mapped = eventHere(raw, who.householdId, personOf);
    const check = 'reason' in mapped ? { ok: false as const, ...mapped } : checkEvent(mapped.event, now());
    if (!check.ok) refuse('event', idOf(raw), check.path, check.reason);
    else events.push({ ...check.event, ...('heard' in mapped ? mapped.heard : {}) });
  }
  const hidden = await hiddenOf(who, [...new Set(events.map((e) => e.visitId))]);
  const seenEvents = events.filter((e) => {
    if (hidden.has(e.visitId)) refuse('event', e.id, 'visitId', 'is a visit here that is private to somebody else');
    return !hidden.has(e.visitId);
  });
  const extras: Extra[] = [];
  const readAll = (
    kind: Extra['kind'],
    raws: readonly unknown[],
    read: (raw: unknown, by: string, personHere: PersonHere) => Extra | { path: string; reason: string },
  ) => {
    for (const raw of raws) {
      const extra = read(raw, who.personId, personOf);
      if ('reason' in extra) refuse(kind, kind === 'closed' ? String(member(raw, 'month') ?? '') : idOf(raw), extra.path, extra.reason);
      else extras.push(extra);
    }
  };
  readAll('watch', ask.watches, readWatch);
  readAll('view', ask.views, readView);
  readAll('closed', ask.closed, readMonth);

  const wanted = ask.same ? await setAgainstTwins(who, changes, new Map(Object.entries(ask.same)), told) : new Set<RecordChange>();
  for (const [i, change] of changes.entries()) {
    const names = !wanted.has(change) && Object.hasOwn(ask.theirs, change.id) ? ask.theirs[change.id] : undefined;
    if (!names) continue;
    changes[i] = onlyOf(change, names);
    wanted.add(changes[i]);
  }
  const isWanted = (c: RecordChange) => wanted.has(c);
  const isNamed = (id: string) => Object.hasOwn(ask.theirs, id);
  const results = take
    ? await write(who, changes, isWanted, seenEvents, extras, isNamed)
    : {
        records: await weighRecords(who, changes, isWanted),
        events: await weighEvents(who, seenEvents),
        extras: await weighExtras(who, extras, isNamed),
      };

  for (const [i, r] of results.records.entries()) {
    const change = changes[i] as RecordChange;
    const what = String(change.fields.name ?? change.fields.label ?? '');
    if (r.status === 'taken') told.taken.record += 1;
    else if (r.status === 'already') told.already += 1;
    else if (r.status === 'conflict' && r.theirs) told.differs.push({ kind: 'record', id: r.id, what, here: r.theirs, file: change });
    else refuse('record', r.id, r.path ?? 'record', r.reason ?? 'is not understood');
  }
  const same = await sameBut(
    who.householdId,
    seenEvents.filter((_, i) => results.events[i]?.status === 'conflict'),
  );
  for (const [i, r] of results.events.entries()) {
    const e = seenEvents[i] as StoredEvent;
    if (r.status === 'taken') told.taken.event += 1;
    else if (r.status === 'already' || same.has(e.id)) told.already += 1;
    else if (r.status === 'conflict') told.differs.push({ kind: 'event', id: e.id, what: e.kind, file: e.visitId });
    else refuse('event', e.id, r.path ?? 'event', r.reason ?? 'is not understood');
  }
  for (const [i, r] of results.extras.entries()) {
    const { kind, id } = extras[i] as Extra;
    if (r.is === 'taken') told.taken[kind] += 1;
    else if (r.is === 'already') told.already += 1;
    else if (r.is === 'differs') told.differs.push(r.differs);
    else refuse(kind, id, kind, 'finds no room: as many as a household may have are here');
  }
  return told;
}

/**
 * Gives changes the ids of the records that are here under another, in place, and tells which they are. What is lacking here is a change of its own, behind the others; what is blank in
 * the file takes nothing away.
 * @returns those that only add to what is here: nobody is asked
 */
async function setAgainstTwins(who: Member, changes: RecordChange[], same: Map<string, string>, told: LedgerTold): Promise<Set<RecordChange>> {
  const adding = new Set<RecordChange>();
  const types = [...new Set(changes.map((c) => c.type))];
  const all = new Map(await Promise.all(types.map(async (type) => [type, await recordsOf(who.householdId, type)] as const)));
  const there = new Set([...all.values()].flat().map((r) => r.id));
  const claimed = new Set([...same.values(), ...changes.flatMap((c) => (there.has(c.id) ? [c.id] : []))]);
  for (const [i, change] of inReferenceOrder([...changes.entries()], ([, c]) => c)) {
    const fields = withIds(change.fields, same);
    const twin = there.has(change.id) ? null : twinOf(change.type, fields, all.get(change.type) ?? [], claimed);
    changes[i] = { ...change, fields };
    if (!twin) continue;
    claimed.add(twin.id);
    same.set(change.id, twin.id);
    if (NAMED_BY_OTHERS.includes(change.type)) told.same[change.id] = twin.id;
    const { adds, differs } = addedTo(twin.fields as Record<string, unknown>, fields);
    const { archived = false, ...whole } = change;
    const lacking = { ...whole, id: twin.id, fields: adds };
    adding.add(lacking);
    // One that was put away here comes into use again where that is chosen; what the file put away stays in use.
    const inUse = twin.archived && !archived;
    if (differs.length === 0 && !inUse) changes[i] = lacking;
    else {
      changes[i] = { ...whole, id: twin.id, ...(inUse ? { archived } : {}), fields: { ...twin.fields, ...pick(fields, differs) } };
      // Behind it: the record that is shown whole is as the twin was before.
      if (Object.keys(adds).length > 0) changes.push(lacking);
    }
    told.twins.push({ type: change.type, name: String(change.fields.name ?? '') });
  }
  return adding;
}
/** Of a record of the file what was chosen: the rest stays as it is here. */
function onlyOf({ archived = false, ...change }: RecordChange, names: readonly string[]): RecordChange {
  const fields = pick(
    change.fields,
    names.filter((name) => Object.hasOwn(change.fields, name)),
  );
  return { ...change, fields, ...(names.includes(ARCHIVED) ? { archived } : {}) };
}
const pick = (fields: Readonly<Record<string, unknown>>, names: readonly string[]): Record<string, unknown> =>
  Object.fromEntries(names.map((name) => [name, fields[name]]));

const idOf = (raw: unknown): string => (typeof member(raw, 'id') === 'string' ? (member(raw, 'id') as string) : '');
/** A record of the file as one that was just made: whole, from nothing. */
const asNew = (raw: unknown): unknown =>
  typeof raw === 'object' && raw !== null && !Array.isArray(raw)
    ? { type: member(raw, 'type'), id: member(raw, 'id'), archived: member(raw, 'archived'), fields: member(raw, 'fields'), baseRev: 0 }
    : raw;

/** An event of the file as one of this household, by the person that its own is here, and what was heard of its device's clock. */
function eventHere(
  raw: unknown,
  householdId: string,
  personOf: PersonHere,
): { event: unknown; heard: { heard_ms?: number } } | { path: string; reason: string } {
  if (typeof raw !== 'object' || raw === null || Array.isArray(raw)) return { event: raw, heard: {} };
  const personId = personOf(member(raw, 'personId'));
  if (!personId) return { path: 'personId', reason: 'is somebody of whom it was not said who that is here' };
  const heard = member(raw, 'heard_ms');
  const payload = member(raw, 'payload');
  const isPayload = typeof payload === 'object' && payload !== null && !Array.isArray(payload);
  return {
    event: { ...raw, householdId, personId, ...(isPayload ? { payload: payloadHere(payload as Record<string, unknown>, personOf) } : {}) },
    heard: typeof heard === 'number' && Math.abs(heard) < 1e12 ? { heard_ms: Math.round(heard) } : {},
  };
}

type Results = { records: ItemResult[]; events: ItemResult[]; extras: ExtraResult[] };

async function write(
  who: Member,
  changes: readonly RecordChange[],
  isWanted: (c: RecordChange) => boolean,
  events: readonly StoredEvent[],
  extras: readonly Extra[],
  isNamed: (id: string) => boolean,
): Promise<Results> {
  const at = now();
  const { result } = await writing(who, new Date(at), async (w) => {
    const records: ItemResult[] = [];
    const ordered = inReferenceOrder([...changes.entries()], ([, change]) => change);
    for (const [i, change] of ordered) records[i] = await takeRecord(w, isWanted(change) ? { ...change, baseRev: CHOSEN_REV } : change);
    const answers: ItemResult[] = [];
    const items = events.map(eventItem);
    // What was heard of a device's clock stays with the event, as if it had come here in the same way.
    const written = await takeEvents(w, items, answers, (e) => (e.heard_ms === undefined ? null : new Date(at - e.heard_ms)));
    // What the file joins it tells whole; what was joined here it does not know of.
    const followed = await followJoins(w, written, 'late');
    return { followed, records, events: answers, extras: await takeExtras(w.c, who, extras, isNamed) };
  });
  // Whose a private visit is stands with it at once: figures are derived later, and what is not derived is seen by everybody.
  const marked = events.flatMap((e) => (e.kind === 'mark' ? [e.visitId] : []));
  await refreshVisits(who.householdId, [...new Set(marked.length > 0 ? [...marked, ...result.followed] : [])]);
  return result;
}

async function weighRecords(who: Member, changes: readonly RecordChange[], isWanted: (c: RecordChange) => boolean): Promise<ItemResult[]> {
  const out: ItemResult[] = [];
  for (const change of changes) {
    const there = await readRecord(who.householdId, change.type, change.id);
    if (!there) out.push({ id: change.id, status: 'taken' });
    else {
      const said = applyChange({ archived: there.archived, fields: there.fields, fieldRevs: { '*': there.rev } }, change);
      out.push(
        said.is === 'same'
          ? { id: change.id, status: 'already' }
          : isWanted(change)
            ? { id: change.id, status: 'taken' }
            : { id: change.id, status: 'conflict', theirs: there },
      );
    }
  }
  return out;
}

async function weighEvents(who: Member, events: readonly StoredEvent[]): Promise<ItemResult[]> {
  const there = await storedHere(
    who.householdId,
    events.map((e) => e.id),
  );
  return events.map((e) => ({ id: e.id, status: there.has(e.id) ? (isSame(e, there.get(e.id) as StoredEvent) ? 'already' : 'conflict') : 'taken' }));
}

/** What a transaction would have come to that is not to be. */
class OnlyWeighed extends Error {
  constructor(readonly results: ExtraResult[]) {
    super('only weighed');
  }
}
/** What would come of them: they are written, and the transaction is taken back. */
async function weighExtras(who: Member, extras: readonly Extra[], isNamed: (id: string) => boolean): Promise<ExtraResult[]> {
  if (extras.length === 0) return [];
  try {
    return await inTransaction(async (c) => {
      await c.execute('SELECT id FROM household WHERE id = ? FOR UPDATE', [toBin(who.householdId)]);
      throw new OnlyWeighed(await takeExtras(c, who, extras, isNamed));
    });
  } catch (error) {
    if (error instanceof OnlyWeighed) return error.results;
    throw error;
  }
}

const storedHere = async (householdId: string, ids: readonly string[]): Promise<Map<string, StoredEvent>> => {
  const c = await pool().getConnection();
  try {
    return await eventsById(c, householdId, ids);
  } finally {
    c.release();
  }
};
/** What an event says, whoever it was here and whatever was heard of the clock: a second restore may say other people. */
const isSame = (a: StoredEvent, b: StoredEvent): boolean => {
  const bare = ({ heard_ms: _, personId: __, payload, ...e }: StoredEvent) => canonicalJson({ ...e, payload: payloadOfNobody(payload) });
  return bare(a) === bare(b);
};
async function sameBut(householdId: string, events: readonly StoredEvent[]): Promise<Set<string>> {
  const there = await storedHere(
    householdId,
    events.map((e) => e.id),
  );
  return new Set(events.filter((e) => there.has(e.id) && isSame(e, there.get(e.id) as StoredEvent)).map((e) => e.id));
}
