import type { Undone } from '@/server/formats/undo-sheet';

/**
 * Takes an import back, request by request.
 * @param onProgress how much is taken back so far @param stop true when somebody wants it to stop
 * @returns `stopped`: not all of it was, since the server could not just then
 * @throws when the server cannot be reached
 */
export async function undoImport(
  kind: 'sheet' | 'cdrs',
  id: string,
  onProgress: (undone: number) => void,
  stop: () => boolean = () => false,
): Promise<{ undone: number; stopped: 'server' | 'asked' | null }> {
  let undone = 0;
  for (let next: string | null | undefined; next !== null; ) {
    const answer: Response = await fetch(`/api/v1/import/${kind}`, {
      method: 'DELETE',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ id, next }),
    });
    if (!answer.ok) return { undone, stopped: 'server' };
    const told: Partial<Undone> = await answer.json();
    undone += told.undone ?? 0;
    // Bills of a network are one request.
    next = told.next ?? null;
    if (next !== null) onProgress(undone);
    if (next !== null && stop()) return { undone, stopped: 'asked' };
  }
  return { undone, stopped: null };
}
