'use client';
import { type ReactNode, useRef } from 'react';
import { type Rest, takesTouch } from './rest';

export type PadProps = {
  children: ReactNode;
  hint?: string;
  tone?: 'next' | 'bad' | 'plain';
  onPress: (timeStamp: number) => void;
  rest: Rest;
  className?: string;
  unavailable?: boolean;
  shortcut?: string;
};

/**
 * One pad at the stall. The time handed on is that of the finger going down, not of the handler.
 * While it rests (just after another tap) it takes nothing, so that a wet double touch records nothing.
 */
export function Pad({ children, hint, tone = 'plain', onPress, rest, className = '', unavailable = false }: PadProps) {
  const down = useRef<number | null>(null);
  const look = tone === 'next' ? 'bg-paint text-on-paint border-on-paint' : tone === 'bad' ? 'border-fault text-fault bg-card' : 'border-ink bg-card text-ink';
  return (
    <button
      type="button"
      aria-disabled={rest.now || unavailable}
      data-home={tone === 'next' ? '' : undefined}
      onPointerDown={(e) => {
        down.current = e.timeStamp;
      }}
      onClick={(e) => {
        // A press by keyboard has no finger: an old one, slid away, must not lend it its time.
        const at = e.detail === 0 ? e.timeStamp : (down.current ?? e.timeStamp);
        down.current = null;
        if (!unavailable && takesTouch(rest, at)) onPress(at);
      }}
      className={`grid h-[60px] grid-cols-1 select-none place-items-center overflow-hidden rounded-lg border-2 px-1 py-0.5 short:h-[52px] text-center text-[17px] font-bold leading-tight [touch-action:manipulation] active:translate-y-px ${unavailable ? 'opacity-45' : ''} ${look} ${className}`}
    >
      {/* A pad keeps its place and size whatever the words on it. */}
      <span className="w-full">
        <span className={hint ? 'line-clamp-1' : 'line-clamp-2'}>{children}</span>
        {hint ? <small className="line-clamp-1 wrap-anywhere text-[12.5px] font-medium">{hint}</small> : null}
      </span>
    </button>
  );
}
