import Link from 'next/link';
import { priceWords } from '@/core/tariff/price-words';
import type { KeptTariff } from '@/core/tariff/tariff-on';
import { printCalendarDate, printSeen } from '@/core/units/zoned';

export type ListedPrice = { tariff: KeptTariff; archived: boolean; rev: number; forWhom: string; ofWhat: string; now: boolean };

/** Prices of a place, those that hold first, with the day since when. */
export function PriceList({ prices, href }: { prices: readonly ListedPrice[]; href: (id: string) => string }) {
  if (prices.length === 0) return <p className="text-sm text-ink-2">No price is on file here. What stands on the post is enough to begin with.</p>;
  return (
    <ul className="text-[14px]">
      {prices.map((p) => (
        <li key={p.tariff.id} className={`border-b border-rule-2 py-2 ${p.now ? '' : 'text-ink-2'}`}>
          <Link href={href(p.tariff.id)} className="inline-block min-h-6 font-semibold underline decoration-rule underline-offset-4">
            {priceWords(p.tariff)}
          </Link>
          <p className="text-[13px] text-ink-2">
            {[
              p.forWhom,
              p.ofWhat,
              `from ${printCalendarDate(p.tariff.validFrom)}`,
              p.tariff.validUntil ? `to ${printSeen(p.tariff.validUntil)} ${p.tariff.validUntil.slice(0, 4)}` : null,
              p.now ? 'in force' : null,
              p.archived ? 'put away' : null,
            ]
              .filter(Boolean)
              .join(', ')}
          </p>
        </li>
      ))}
    </ul>
  );
}
