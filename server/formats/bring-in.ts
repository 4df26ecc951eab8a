import { type LedgerFile, type LedgerRefused, ledgerBatches, ofPlacesAlone } from '@/core/formats/ledger-file';
import type { Member } from '../accounts/who';
import { MAX_PHOTO_BYTES, restorePhoto } from '../photos/photo-table';
import { type LedgerAsk, type LedgerTold, takeLedger } from './ledger-in';

/** What came of a whole ledger. */
export type BroughtIn = LedgerTold & { photos: { taken: number; already: number; refused: string[] }; stopped: LedgerRefused | null };

/**
 * A whole ledger into a household, piece by piece, its pictures first, so that nothing speaks of one that is not there. Interrupted, the same again goes on from there.
 * @param take false: says what would come of it and changes nothing
 */
export async function bringIn(who: Member, file: LedgerFile, ask: Pick<LedgerAsk, 'people' | 'theirs'>, take: boolean): Promise<BroughtIn> {
  const all: BroughtIn = {
    taken: { record: 0, event: 0, watch: 0, view: 0, closed: 0 },
    already: 0,
    differs: [],
    refused: [],
    twins: [],
    same: {},
    photos: { taken: 0, already: 0, refused: [] },
    stopped: null,
  };
  for (const { name } of take ? file.head.photos : []) {
    const bytes = await file.photo(name);
    if (!bytes.ok) return { ...all, stopped: bytes.refused };
    const sent = bytes.value && bytes.value.length <= MAX_PHOTO_BYTES ? bytes.value : null;
    const kept = sent && (await restorePhoto(who, name, Buffer.from(sent)));
    if (!kept?.ok) all.photos.refused.push(name);
    else all.photos[kept.already ? 'already' : 'taken'] += 1;
  }
  for await (const piece of ledgerBatches(file)) {
    if (!piece.ok) return { ...all, stopped: piece.refused };
    const told = await takeLedger(who, { ...piece.value, ...ask, same: ofPlacesAlone(file) ? all.same : undefined }, take);
    for (const kind of ['record', 'event', 'watch', 'view', 'closed'] as const)
      (all.taken as Record<string, number>)[kind] = all.taken[kind] + told.taken[kind];
    all.already += told.already;
    all.differs.push(...told.differs);
    all.refused.push(...told.refused);
    all.twins.push(...told.twins);
    Object.assign(all.same, told.same);
  }
  return all;
}
