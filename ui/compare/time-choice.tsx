'use client';
import { useRouter } from 'next/navigation';
import { END_MARKS, writeLedgerFilter } from '@/core/compare/ledger-filter';
import { POWER_TIMES, type PowerTime } from '@/core/compare/visit-row';
import { TIME_RULES } from '@/core/visit/attempt-times';
import type { EndMark } from '@/core/visit/attempts';

/** Which definition and which end mark the start is timed by: kept apart, never mixed. */
export function TimeChoice({ time, mark }: { time: PowerTime; mark: EndMark }) {
  const router = useRouter();
  const go = (t: PowerTime, m: EndMark) => router.push(`/compare${writeLedgerFilter({ time: t, mark: m })}`);
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
    </div>
  );
}
