import type { Changes } from '@/core/protocol/changes';
import { askServer } from '../server/ask-server';

/** What was written in the household since a rev; `null` when the server could not be reached or nobody is signed in. */
export async function changesSince(rev: number): Promise<Changes | null> {
  const said = await askServer(`/api/v1/changes?since=${rev}`);
  return said?.ok ? (said.body as Changes) : null;
}
