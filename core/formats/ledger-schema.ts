import * as z from '@/core/units/schema';
import { RECORDS } from '../records/record-schema';
import { RECORD_TYPES } from '../records/types/registry';
import { PAYLOADS } from '../visit/payloads';

/** The version that is written. One with a greater number is refused: it may hold what would be lost here. */
export const LEDGER_VERSION = 1;
export const LEDGER_FORMAT = 'mile-ledger';

const id = () => z.string().check(z.regex(/^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/));
const sha256 = () => z.string().check(z.regex(/^[0-9a-f]{64}$/));
const instant = () => z.int();

const envelope = {
  id: id(),
  householdId: id(),
  personId: id(),
  visitId: id(),
  at: instant(),
  precision: z.enum(['ms', 's', 'min', 'day']),
  zone: z.string(),
  deviceId: id(),
  life: id(),
  mono: z.number(),
  awake: z.boolean(),
  seq: z.int(),
  origin: z.enum(['tap', 'typed', 'imported', 'simulated']),
  role: z.enum(['recorder', 'observer']),
  // The server's clock when it came less the sender's when it went, ms.
  heard_ms: z.optional(z.number()),
};

/**
 * `ledger.json` as it is written, for those who read it elsewhere: the published schema is made of this. Reading takes more than it says: each
 * event and record is judged by itself, so that one bad one costs no other.
 */
export const ledgerSchema = z.looseObject({
  format: z.literal(LEDGER_FORMAT),
  version: z.literal(LEDGER_VERSION),
  household: z.looseObject({ id: id(), name: z.string(), currency: z.string(), zone: z.string() }),
  people: z.array(z.looseObject({ personId: id(), name: z.string(), role: z.string() })),
  records: z.array(
    z.union(
      RECORD_TYPES.map((type) => z.looseObject({ type: z.literal(type), id: id(), archived: z.boolean(), fields: RECORDS[type] as unknown as z.ZodMiniType })),
    ),
  ),
  /** A ledger of many visits has its events in parts beside: files of the zip, each `{format: "mile-ledger-events", version, events}`. */
  parts: z.array(z.looseObject({ name: z.string(), events: z.int() })),
  events: z.array(
    z.union(
      Object.entries(PAYLOADS).map(([kind, payload]) => z.looseObject({ ...envelope, kind: z.literal(kind), v: z.int(), payload: payload as z.ZodMiniType })),
    ),
  ),
  watches: z.array(
    z.looseObject({
      id: id(),
      by: z.string(),
      a: z.string(),
      b: z.string(),
      figure: z.string(),
      since: instant(),
      endedAt: z.nullable(instant()),
      putBy: id(),
    }),
  ),
  views: z.array(z.looseObject({ id: id(), name: z.string(), address: z.string(), savedBy: id(), savedAt: instant() })),
  /** Months whose books are closed, as they were then; what is private tells car, kWh and money alone. */
  closed: z.optional(
    z.array(z.looseObject({ month: z.string(), closedAt: instant(), closedBy: id(), rows: z.array(z.looseObject({ visitId: id(), day: z.string() })) })),
  ),
  /** Pictures of the zip: `photos/{name}.jpg`, by the name under which events and records speak of them. */
  photos: z.array(z.looseObject({ name: sha256(), stored: sha256(), personId: id() })),
});
