import type { Metadata } from 'next';
import Link from 'next/link';
import { mayRecord } from '@/core/records/roles';
import { membersOf } from '@/server/accounts/members';
import { signedInHere } from '@/server/http/signed-in-here';
import { namesForForms } from '@/server/records/names-for-forms';
import { RestoreLedger } from './restore-ledger';

export const metadata: Metadata = { title: 'Bring a ledger in' };

/** A whole ledger that was taken along, into this household. */
export default async function RestorePage() {
  const who = await signedInHere();
  const [members, names] = await Promise.all([membersOf(who.householdId), namesForForms(who.householdId)]);
  const here = members.filter((m) => m.leftAt === null).map(({ personId, name }) => ({ personId, name }));
  return (
    <div className="mx-auto w-full max-w-xl p-6 max-sm:px-4">
      <Link href="/settings" className="inline-block min-h-6 text-[13px] font-semibold text-shake underline">
        Back to the settings
      </Link>
      <h1 className="mt-1 text-[22px]">Bring a ledger in</h1>
      <p className="mb-3 mt-1 text-sm text-ink-2">
        The zip that “Take it along” writes, or the JSON of an earlier version, into {who.householdName}. What is here already is recognised and stays as it is;
        nothing is written before you have seen what would come of it. The same file twice adds nothing.
      </p>
      {mayRecord(who.role) ? (
        <RestoreLedger here={here} household={{ name: who.householdName, currency: who.currency, zone: who.zone }} names={names} />
      ) : (
        <p className="border-l-4 border-rule bg-card px-3 py-2 text-[15px]">
          Only the owner of the household brings a whole ledger in, and those who record places and prices.
        </p>
      )}
    </div>
  );
}
