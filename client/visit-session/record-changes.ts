import type { MileRecord, RecordItem } from '@/core/records/record-schema';
import { keepRecords } from '../store/keep-record';
import type { PhoneStore } from '../store/phone-store';
import { byType, changedBy, type Records } from '../store/records-by-type';
import type { SessionWays } from './session-ways';

/**
 * Records made or changed in a session: drawn at once, so that the next touch is made on what they say now, and kept.
 * @param shown what is drawn now @param draw draws anew, and says what could not be kept
 */
export function recordChanges(
  shown: () => Records,
  sendRecords: SessionWays['sendRecords'],
  draw: (now: { records: Records; cannotKeep?: string }) => void,
): { over: (stored: readonly MileRecord[]) => Records; add: (store: PhoneStore | null, items: readonly RecordItem[]) => Promise<void> } {
  /** On their way to the disk, or what it could not take: what is read there meanwhile tells what was before. */
  let changing: RecordItem[] = [];
  const all = (): MileRecord[] => Object.values(shown()).flat();
  return {
    /** What the store says, as it is changed here. */
    over: (stored) => byType(changedBy(stored, changing)),
    async add(store, items) {
      const before = all();
      const written = () => {
        changing = changing.filter((c) => !items.includes(c));
      };
      // One made since takes the place of an earlier one of the same record.
      changing = [...changing.filter((c) => !items.some((i) => i.type === c.type && i.id === c.id)), ...items];
      draw({ records: byType(changedBy(before, items)) });
      try {
        if (!store) throw new Error('nothing can be kept here');
        await keepRecords(store, items, before);
        written();
      } catch {
        // What cannot be written down goes to the server at once.
        const why = await sendRecords(items);
        if (why === null) return;
        written();
        const [ours, was] = [new Set(items.map((i) => i.id)), new Map(before.map((r) => [r.id, r]))];
        draw({
          records: byType(all().flatMap((r) => (ours.has(r.id) ? (was.get(r.id) ?? []) : r))),
          cannotKeep: `places and garage could not be changed, ${why}`,
        });
      }
    },
  };
}
