import type { Metadata } from 'next';
import Link from 'next/link';
import { signedInHere } from '@/server/http/signed-in-here';
import { ForDrivers } from '@/ui/road/role';
import { EarlierImports } from './earlier-imports';
import { ImportBills } from './import-bills';

export const metadata: Metadata = { title: 'Bills from a network' };

/** A network's own record of its sessions, set against the visits recorded here. */
export default async function ImportPage() {
  const who = await signedInHere();
  return (
    <div className="mx-auto w-full max-w-[1100px] px-4 py-4 sm:px-6">
      <Link href="/ledger" className="inline-block min-h-6 text-[13px] font-semibold text-shake underline">
        Back to the ledger
      </Link>
      <Link href="/ledger/import/sheet" className="ml-4 inline-block min-h-6 text-[13px] font-semibold text-shake underline">
        A spreadsheet
      </Link>
      <h1 className="mb-2 mt-1 text-[24px]">Bills from a network</h1>
      <p className="mb-4 max-w-[760px] text-[14.5px] text-ink-2">
        Many networks hand out their record of a session as a CDR of OCPI 2.2.1 in JSON. It is laid beside the visits recorded here by place, time and energy:
        the network’s figures stand beside yours, nothing is overwritten. What is not plain is asked. The card’s and contract’s numbers in it are never kept.
      </p>
      <ForDrivers>
        <ImportBills />
        <EarlierImports zone={who.zone} />
      </ForDrivers>
    </div>
  );
}
