import type { Metadata } from 'next';
import Link from 'next/link';
import { printDate } from '@/core/units/zoned';
import { householdsOf } from '@/server/accounts/members';
import { tokensOf } from '@/server/accounts/tokens';
import { signedInHere } from '@/server/http/signed-in-here';
import { Part } from '../part';
import { MakeToken } from './make-token';
import { TokenList } from './token-list';

export const metadata: Metadata = { title: 'Programs' };

/** Tokens by which a person's own programs read and write. */
export default async function ProgramsPage() {
  const who = await signedInHere();
  const [tokens, households] = await Promise.all([tokensOf(who.personId), householdsOf(who.personId)]);
  const day = (at: number) => printDate(at, who.zone);
  return (
    <div className="mx-auto w-full max-w-xl p-6 max-sm:px-4">
      <Link href="/settings" className="inline-block min-h-6 text-[13px] font-semibold text-shake underline">
        Back to the settings
      </Link>
      <h1 className="mt-1 text-[22px]">Programs</h1>
      <p className="mt-1 text-sm text-ink-2">
        A token lets a program of yours read your visits, places and prices, or send events.{' '}
        <Link href="/settings/programs/api" className="font-semibold text-shake underline">
          What it can ask
        </Link>
        . It may no more than you may, and nothing any more once you end it.
      </p>
      <Part id="make" head="Make a token">
        <MakeToken households={households.map((h) => ({ id: h.householdId, name: h.name }))} here={who.householdId} />
      </Part>
      <Part id="tokens" head="Your tokens">
        <TokenList
          tokens={tokens.map((t) => ({
            id: t.id,
            name: t.name,
            text: `${t.write ? 'reads and writes' : 'reads'} ${t.households.join(', ') || 'nothing any more'}, made ${day(t.madeAt)}, ${t.lastUsedAt === null ? 'not used yet' : `last used ${day(t.lastUsedAt)}`}`,
          }))}
        />
      </Part>
    </div>
  );
}
