import type { RecordChange } from '../records/change-of';
import type { MileRecord } from '../records/record-schema';
import type { StoredEvent } from '../visit/event';

/** One thing on its way from a device to the server. */
export type OutboxItem = { type: 'event'; event: StoredEvent } | { type: 'record'; record: RecordChange };

/** A batch as a device sends it. `sentAt`: the device's clock, UTC ms; tells only how far that is off. */
export type OutboxBatch = { sentAt: number; items: readonly OutboxItem[] };

/** What became of one item. */
export type ItemResult = {
  id: string;
  status: 'taken' | 'already' | 'refused' | 'conflict';
  /** Where it is wrong, and why it was not taken. */
  path?: string;
  reason?: string;
  /**
   * `other_person`: hold it until that person signs in; `other_household`: until they are in that household again. `visit_unknown`: of somebody who looks on at a visit that is not here yet;
   * hold it until it is. `whole_wanted`: a change of a record that is not there; send all of it.
   */
  code?: 'other_person' | 'other_household' | 'visit_unknown' | 'whole_wanted';
  rev?: number;
  /** What the record says there, when it was changed elsewhere since. */
  theirs?: MileRecord;
  /** What it says now, where a change was taken into what others had changed. */
  now?: MileRecord;
};
/** True for what stays in the outbox as it is and goes again with a later round. */
export const waitsThere = (r: ItemResult | undefined): boolean => r?.code === 'other_person' || r?.code === 'other_household' || r?.code === 'visit_unknown';

/** The answer to a batch, in the order of its items. `epoch` is another one after the ledger was restored from a backup. */
export type OutboxAnswer = { rev: number; epoch?: string; results: ItemResult[] };
