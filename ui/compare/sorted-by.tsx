'use client';
import { useRouter } from 'next/navigation';
import { type CompareAsk, writeCompareAsk } from '@/core/compare/compare-address';
import { LOOKS, MEASURES, type Measure } from '@/core/compare/measures';
import type { Asked } from '@/core/figures/populations';

/** What the rows are sorted by, where each is a card and no head stands above them to be pressed. */
export function SortedBy({ ask, asked }: { ask: CompareAsk; asked: Asked }) {
  const router = useRouter();
  return (
    <label className="no-print mb-2 flex min-h-[44px] items-center gap-2 text-[13px] sm:hidden">
      Sorted by
      <select
        className="min-h-[44px] min-w-0 grow rounded-[5px] border border-lane bg-card px-2 text-[14px] font-semibold text-ink"
        value={ask.sort}
        onChange={(e) => router.push(`/compare${writeCompareAsk({ ...ask, sort: e.target.value as Measure })}`, { scroll: false })}
      >
        {LOOKS[ask.look].measures.map((m) => (
          <option key={m} value={m}>
            {MEASURES[m].label(asked)}
          </option>
        ))}
      </select>
    </label>
  );
}
