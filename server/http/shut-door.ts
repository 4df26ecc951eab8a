import type { Shut } from '../accounts/accounts';

/** The answer of a door that did not open. @param wrong what to say when it was not too many tries */
export function shutDoor(shut: Shut, wrong: string): Response {
  if (shut.wait_s === 0) return Response.json({ error: wrong }, { status: 401, headers: { 'cache-control': 'no-store' } });
  const minutes = Math.ceil(shut.wait_s / 60);
  return Response.json(
    { error: `Too many tries. Wait ${minutes} min and try again.` },
    { status: 429, headers: { 'retry-after': String(shut.wait_s), 'cache-control': 'no-store' } },
  );
}
