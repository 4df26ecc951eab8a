'use client';
import { usePathname, useRouter } from 'next/navigation';
import { type LedgerFilter, writeLedgerFilter } from '@/core/compare/ledger-filter';
import { FAULTS } from '@/core/faults/fault-list';
import { PickOne } from '../forms/pick-one';

const ANY_FAULT = [{ id: 'any', name: 'With faults' }, ...FAULTS.map((f) => ({ id: f.code, name: f.label }))];

/** Network and fault filters; the choice lives in the address. */
export function LedgerFilters({ filter, networks }: { filter: LedgerFilter; networks: { id: string; name: string }[] }) {
  const router = useRouter();
  const path = usePathname();
  const go = (change: Partial<LedgerFilter>) => router.push(`${path}${writeLedgerFilter({ ...filter, ...change })}`);
  const className = 'min-h-[36px] max-w-[132px] rounded-[5px] border border-lane bg-card px-2 text-[13px] font-semibold text-ink';
  return (
    <>
      <PickOne
        id="ledger-network"
        label="Network"
        none="All networks"
        list={networks}
        value={filter.network ?? ''}
        className={className}
        onPick={(id) => go({ network: id || undefined })}
      />
      <PickOne
        id="ledger-faults"
        label="Faults"
        none="Faults or none"
        list={ANY_FAULT}
        value={filter.faults ?? ''}
        className={className}
        onPick={(code) => go({ faults: code || undefined })}
      />
    </>
  );
}
