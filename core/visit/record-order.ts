import type { StoredEvent } from './event';

/** Events of a visit in the order of the record, whatever their clocks say: by place, then device, then id. */
export const inRecordOrder = (events: readonly StoredEvent[]): StoredEvent[] =>
  [...events].sort((a, b) => a.seq - b.seq || (`${a.deviceId} ${a.id}` < `${b.deviceId} ${b.id}` ? -1 : 1));
