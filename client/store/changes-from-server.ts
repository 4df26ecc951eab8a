import type { Changes } from '@/core/protocol/changes';

/** What was written in the household since a rev; `null` when the server could not be reached or nobody is signed in. */
export async function changesSince(rev: number): Promise<Changes | null> {
  try {
    const response = await fetch(`/api/v1/changes?since=${rev}`, { cache: 'no-store' });
    return response.ok ? await response.json() : null;
  } catch {
    return null;
  }
}
