import { quantile } from '../units/quantile';

/** One attempt as far as the usual waiting needs it. */
export type WaitedAttempt = {
  stallId: string;
  networkId: string | null;
  meansKind: string | null;
  outcome: 'power' | 'failed' | 'gave_up' | 'open';
  late: boolean;
  handshake_s: number | null;
};
/** Median over all attempts; `null` seconds: fewer than half got power. */
export type UsualTime = { s: number | null; attempts: number };
/** By `stall means` and `network means`. */
export type Usual = Readonly<Record<string, UsualTime>>;

const keyOf = (placeId: string, meansKind: string | null) => `${placeId} ${meansKind ?? ''}`;

/**
 * The usual handshake at every stall and network, by kind of means. Attempts that never got power count as never,
 * so that a stall which starts one time in five does not look quick.
 */
export function usualHandshakes(attempts: readonly WaitedAttempt[]): Usual {
  const groups = new Map<string, number[]>();
  for (const a of attempts) {
    const s = a.outcome === 'failed' || a.outcome === 'gave_up' ? Number.POSITIVE_INFINITY : a.outcome === 'power' && !a.late ? a.handshake_s : null;
    if (s === null) continue;
    for (const place of [a.stallId, a.networkId]) {
      if (place === null) continue;
      const key = keyOf(place, a.meansKind);
      const list = groups.get(key);
      if (list) list.push(s);
      else groups.set(key, [s]);
    }
  }
  return Object.fromEntries(
    [...groups].map(([key, list]) => {
      const median = quantile(list, 0.5);
      return [key, { s: Number.isFinite(median) ? Math.round(median * 10) / 10 : null, attempts: list.length }];
    }),
  );
}

/** Attempts below which a stall's own median says too little, and the network's is shown instead. */
const FEWEST = 3;

/** The usual handshake for a means at a stall, else at its network. */
export function usualHere(usual: Usual, stallId: string | null, networkId: string | null, meansKind: string): (UsualTime & { of: 'stall' | 'network' }) | null {
  const stall = stallId === null ? undefined : usual[keyOf(stallId, meansKind)];
  if (stall && stall.attempts >= FEWEST) return { ...stall, of: 'stall' };
  const network = networkId === null ? undefined : usual[keyOf(networkId, meansKind)];
  if (network && network.attempts >= FEWEST) return { ...network, of: 'network' };
  return null;
}
