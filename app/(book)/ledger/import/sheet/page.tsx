import type { Metadata } from 'next';
import Link from 'next/link';
import { signedInHere } from '@/server/http/signed-in-here';
import { ForDrivers } from '@/ui/road/role';
import { EarlierImports } from '../earlier-imports';
import { ImportSheet } from './import-sheet';

export const metadata: Metadata = { title: 'A spreadsheet' };

/** Years of visits kept in a spreadsheet, read row by row. */
export default async function SheetPage() {
  const who = await signedInHere();
  return (
    <div className="mx-auto w-full max-w-[1100px] px-4 py-4 sm:px-6">
      <Link href="/ledger" className="inline-block min-h-6 text-[13px] font-semibold text-shake underline">
        Back to the ledger
      </Link>
      <Link href="/ledger/import" className="ml-4 inline-block min-h-6 text-[13px] font-semibold text-shake underline">
        Bills from a network
      </Link>
      <h1 className="mb-2 mt-1 text-[24px]">A spreadsheet</h1>
      <p className="mb-4 max-w-[760px] text-[14.5px] text-ink-2">
        Saved as CSV, in whatever language and order of columns: a row is a visit. Nothing is taken in before you have seen what would come of each row; what
        the file does not settle is asked, and an import can be taken back as a whole. Times without a zone are of the site, else of {who.zone}; money without a
        currency is {who.currency}.
      </p>
      <ForDrivers>
        <ImportSheet />
        <EarlierImports zone={who.zone} />
      </ForDrivers>
    </div>
  );
}
