import { printCount, printDuration } from '../units/print';

const LEFT: Record<string, string> = {
  gave_up: 'gave up',
  queue: 'left for the queue',
  price: 'left for the price',
  unsafe: 'left as unsafe',
  closed: 'closed',
  called_away: 'called away',
  enough: 'no power recorded',
};

/** How a visit ended, in a word or two; empty when it charged. */
export function describeEnd(v: { state: 'over' | 'running' | 'left_open'; ended: 'charge' | 'none' | 'open'; leftReason: string | null }): string {
  if (v.state === 'running') return 'still there';
  if (v.state === 'left_open') return 'left open';
  return v.ended === 'charge' ? '' : (LEFT[v.leftReason ?? ''] ?? 'no power recorded');
}

/** What a list row says of the start: `first try, 12.4 s handshake`, `3 attempts, handshake 33.4 s`. */
export function describeStart(v: {
  attempts: number;
  failed: number;
  ended: 'charge' | 'none' | 'open';
  handshake_s: number | null;
  handshakeBound: string | null;
}): string {
  if (v.attempts === 0) return 'no attempt';
  const at = v.handshakeBound === 'at_most' ? 'at most ' : '';
  const shake = v.handshake_s === null ? '' : `, ${at}${printDuration(v.handshake_s)} handshake`;
  if (v.attempts === 1) return v.failed === 1 ? '1 attempt failed' : v.ended === 'charge' ? `first try${shake}` : '1 attempt';
  return `${printCount(v.attempts, 'attempt')}${shake}`;
}
