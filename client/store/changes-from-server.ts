import type { Usual } from '@/core/compare/usual-handshake';
import type { Lately } from '@/core/power/compatible-stalls';
import type { MileRecord } from '@/core/records/record-schema';

/** `epoch` is another one after the ledger was restored from a backup, which had `epochRev`. */
export type Changes = { rev: number; epoch?: string; epochRev?: number; records: MileRecord[]; lately?: Lately; usual?: Usual };

/** What was written in the household since a rev; `null` when the server could not be reached or nobody is signed in. */
export async function changesSince(rev: number): Promise<Changes | null> {
  try {
    const response = await fetch(`/api/v1/changes?since=${rev}`, { cache: 'no-store' });
    return response.ok ? await response.json() : null;
  } catch {
    return null;
  }
}
