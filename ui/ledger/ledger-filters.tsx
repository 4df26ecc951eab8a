'use client';
import { usePathname, useRouter } from 'next/navigation';
import { type LedgerFilter, writeLedgerFilter } from '@/core/compare/ledger-filter';
import { FAULTS } from '@/core/faults/fault-list';

/** Network and fault filters; the choice lives in the address. */
export function LedgerFilters({ filter, networks }: { filter: LedgerFilter; networks: { id: string; name: string }[] }) {
  const router = useRouter();
  const path = usePathname();
  const go = (change: Partial<LedgerFilter>) => router.push(`${path}${writeLedgerFilter({ ...filter, ...change })}`);
  const className = 'min-h-[36px] max-w-[132px] rounded-[5px] border border-lane bg-card px-2 text-[13px] font-semibold text-ink';
  return (
    <>
      <select aria-label="Network" className={className} value={filter.network ?? ''} onChange={(e) => go({ network: e.target.value || undefined })}>
        <option value="">All networks</option>
        {networks.map((n) => (
          <option key={n.id} value={n.id}>
            {n.name}
          </option>
        ))}
      </select>
      <select aria-label="Faults" className={className} value={filter.faults ?? ''} onChange={(e) => go({ faults: e.target.value || undefined })}>
        <option value="">Faults or none</option>
        <option value="any">With faults</option>
        {FAULTS.map((f) => (
          <option key={f.code} value={f.code}>
            {f.label}
          </option>
        ))}
      </select>
    </>
  );
}
