import type { LedgerRow } from '@/core/compare/ledger-row';
import { type VisitEvents, withHeard } from '@/core/protocol/visit-events';
import type { StoredEvent } from '@/core/visit/event';
import { askServer } from '../server/ask-server';

async function read<T>(path: string): Promise<T | null> {
  const said = await askServer(path);
  return said?.ok ? (said.body as T) : null;
}

/** The household's last visits; `null` without the server. */
export const lastVisits = async (): Promise<LedgerRow[] | null> => (await read<{ rows: LedgerRow[] }>('/api/v1/visits/lately'))?.rows ?? null;

/**
 * The events of a visit that some phone of the household recorded.
 * @param have how many of them are here already: the same number means the same events, as none is ever taken away
 * @returns `null` without the server, or when there are none besides
 */
export async function visitEvents(visitId: string, have: number): Promise<StoredEvent[] | null> {
  const answer = await read<VisitEvents>(`/api/v1/visits/${visitId}/events?have=${have}`);
  return answer?.events?.map((e) => withHeard(e, answer.heard?.[e.id])) ?? null;
}

/** Visits within twelve hours of an instant, UTC ms; `null` without the server. */
export const lastVisitsNear = async (at: number): Promise<LedgerRow[] | null> =>
  (await read<{ rows: LedgerRow[] }>(`/api/v1/visits/lately?near=${at}`))?.rows ?? null;
