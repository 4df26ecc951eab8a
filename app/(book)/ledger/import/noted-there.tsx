import { isSameMoney, printMoney } from '@/core/units/money';
import type { Paid } from '@/server/formats/paid-for';

/** What somebody noted to have been paid for the visit beside which a bill of a file would stand; another amount stands out. */
export function NotedThere({ noted, told: { amount, currency } }: { noted: readonly Paid[]; told: { amount: string | null; currency: string | null } }) {
  if (noted.length === 0) return null;
  const same = amount === null || currency === null || noted.some((b) => isSameMoney(b, { amount, currency }));
  return (
    <span className={`block text-[12.5px] ${same ? '' : 'text-fault'}`}>
      noted there: {noted.map((b) => printMoney(b.amount, b.currency)).join(', ')}
      {same ? '' : ', another amount'}. It is paid once.
    </span>
  );
}
