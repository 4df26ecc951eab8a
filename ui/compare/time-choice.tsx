'use client';
import { useRouter } from 'next/navigation';
import { END_MARKS, writeLedgerFilter } from '@/core/compare/ledger-filter';
import { SIDES, type Side } from '@/core/faults/fault-list';
import { POWER_TIMES, type PowerTime } from '@/core/figures/populations';
import { TIME_RULES } from '@/core/visit/attempt-times';
import type { EndMark } from '@/core/visit/attempts/attempt';

/** Which definition and which end mark the start is timed by: kept apart, never mixed. */
export function TimeChoice({ time, mark, without }: { time: PowerTime; mark: EndMark; without: Side | null }) {
  const router = useRouter();
  const go = (t: PowerTime, m: EndMark, w = without) => router.push(`/compare${writeLedgerFilter({ time: t, mark: m, ...(w ? { without: w } : {}) })}`);
  const className = 'min-h-[36px] rounded-[5px] border border-lane bg-card px-2 text-[13px] font-semibold text-ink';
  return (
    <div className="flex flex-wrap gap-2">
      <select aria-label="Timed by" className={className} value={time} onChange={(e) => go(e.target.value as PowerTime, mark)}>
        {POWER_TIMES.map((t) => (
          <option key={t} value={t}>
            {TIME_RULES[t].label}
          </option>
        ))}
      </select>
      <select aria-label="End mark" className={className} value={mark} onChange={(e) => go(time, e.target.value as EndMark)}>
        {END_MARKS.map((m) => (
          <option key={m} value={m}>
            to first {m}
          </option>
        ))}
      </select>
      <select aria-label="Faults counted" className={className} value={without ?? ''} onChange={(e) => go(time, mark, (e.target.value || null) as Side | null)}>
        <option value="">faults of every side</option>
        {SIDES.map((s) => (
          <option key={s} value={s}>
            without the {s}’s
          </option>
        ))}
      </select>
    </div>
  );
}
