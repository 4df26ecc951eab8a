'use client';
import type { ThinSegment } from '@/core/visit/tape';
import { FILL } from './paint';

const WORD = { bare: '', queue: 'queue', handshake: 'waiting for power', fault: 'fault', energy: 'charging', idle: 'idle' } as const;

/** A visit as a strip of road in a list row. Shares are of the visit's own length. */
export function ThinTape({ tape }: { tape: readonly ThinSegment[] }) {
  const total = tape.reduce((s, [, w]) => s + w, 0) || 1;
  let at = 0;
  const parts = tape.map(([kind, seconds]) => {
    const part = { kind, x: (100 * at) / total, w: (100 * seconds) / total };
    at += seconds;
    return part;
  });
  const words = parts.filter((p) => WORD[p.kind] !== '').map((p) => WORD[p.kind]);
  return (
    <svg
      width="100%"
      height="10"
      className="mt-1 block bg-[var(--asphalt)]"
      role="img"
      aria-label={words.length > 0 ? `Tape: ${words.join(', ')}` : 'Tape: nothing recorded'}
    >
      <rect width="100%" height="10" fill="url(#paint-dash)" />
      {parts
        .filter((p) => p.kind !== 'bare' && p.kind !== 'queue')
        .map((p) => (
          <rect
            key={p.x}
            x={`${p.x}%`}
            width={`${p.w}%`}
            y={p.kind === 'handshake' ? 5 : 0}
            height={p.kind === 'handshake' ? 5 : 10}
            fill={FILL[p.kind]}
            stroke="var(--asphalt)"
            strokeWidth="1"
          />
        ))}
    </svg>
  );
}
