import { memo } from 'react';
import { printClock } from '@/core/units/zoned';
import type { Segment } from '@/core/visit/tape';
import { FILL } from './paint';
import { uprightLayout } from './upright-layout';

export type UprightMark = { id: string; t: number; text: string; fault: boolean; flag?: string };

const ROAD = 74;

/**
 * The tape while it is laid: the road on the left, what was recorded beside it. Each mark can be pressed to
 * correct its time. Drawn anew only when something was recorded: never between a touch and its keeping.
 * @param running the segment being laid now, down to the foot
 */
export const UprightTape = memo(function UprightTape({
  marks,
  tape,
  zone,
  running,
  onMark,
}: {
  marks: UprightMark[];
  tape: Segment[];
  zone: string;
  running: Segment['kind'] | null;
  onMark: (id: string) => void;
}) {
  const { marks: places, y, height } = uprightLayout(marks.map((m) => m.t));
  const foot = height + 26;
  return (
    <div className="relative">
      <svg width="100%" height={foot} className="block" aria-hidden="true" focusable="false">
        <rect x="36" width="3" height={foot} fill="url(#paint-dash-v)" />
        {tape
          .filter((s) => s.kind !== 'bare' && s.kind !== 'queue')
          .map((s) => (
            <rect
              key={`${s.from}${s.kind}`}
              x={s.kind === 'handshake' ? ROAD / 2 : 0}
              width={s.kind === 'handshake' ? ROAD / 2 : ROAD}
              y={y(s.from)}
              height={Math.max(2, y(s.to) - y(s.from))}
              fill={FILL[s.kind]}
              stroke="var(--asphalt)"
            />
          ))}
        {running && running !== 'bare' && running !== 'queue' ? (
          <rect x={running === 'handshake' ? ROAD / 2 : 0} width={running === 'handshake' ? ROAD / 2 : ROAD} y={height} height={26} fill={FILL[running]} />
        ) : null}
        {marks.map((m, i) => (
          <line key={m.id} x1={ROAD - 14} x2={ROAD + 10} y1={places[i]} y2={places[i]} stroke={m.fault ? 'var(--fault)' : 'var(--ink)'} strokeWidth="2" />
        ))}
      </svg>
      <ol className="m-0 list-none p-0">
        {marks.map((m, i) => (
          <UprightRow key={m.id} mark={m} top={places[i] ?? 0} zone={zone} onMark={onMark} />
        ))}
      </ol>
    </div>
  );
});

function UprightRow({ mark: m, top, zone, onMark }: { mark: UprightMark; top: number; zone: string; onMark: (id: string) => void }) {
  return (
    <li
      className="absolute right-2 left-[86px]"
      ref={(el) => {
        if (el) el.style.top = `${top - 22}px`;
      }}
    >
      <button
        type="button"
        onClick={() => onMark(m.id)}
        className={`flex h-11 max-w-full items-center gap-2 px-1 text-left text-[14.5px] font-semibold ${m.fault ? 'text-fault' : ''}`}
        aria-label={`${m.text}, ${printClock(m.t, zone)}. Correct`}
      >
        <span className="truncate">{m.text}</span>
        <span className="num shrink-0 text-[13px] font-medium text-ink-2">{printClock(m.t, zone)}</span>
        {m.flag ? <span className="shrink-0 text-[12px] font-bold text-fault">{m.flag}</span> : null}
      </button>
    </li>
  );
}
