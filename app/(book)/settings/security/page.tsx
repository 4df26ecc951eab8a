import type { Metadata } from 'next';
import Link from 'next/link';
import { SECURITY_KINDS } from '@/core/records/security-kinds';
import { printClock, printDate } from '@/core/units/zoned';
import { securityLog } from '@/server/accounts/security-log';
import { signedInHere } from '@/server/http/signed-in-here';

export const metadata: Metadata = { title: 'Security log' };

/** The household's security log, as its owner reads it. */
export default async function SecurityPage() {
  const who = await signedInHere();
  const lines = await securityLog(who.householdId);
  return (
    <div className="mx-auto w-full max-w-xl p-6 max-sm:px-4">
      <p className="mb-3">
        <Link href="/settings" className="text-sm font-semibold text-shake underline">
          Back to the settings
        </Link>
      </p>
      <h1 className="text-[22px]">Security log</h1>
      <p className="mt-1 text-sm text-ink-2">The newest two hundred lines. It holds who and when, no addresses, and nothing can be changed in it.</p>
      {lines.length === 0 ? (
        <p className="mt-4 text-sm">Nothing has happened at the doors yet.</p>
      ) : (
        <ol className="mt-4 border-t-2 border-ink">
          {lines.map((l) => (
            <li key={l.id} className="flex flex-wrap gap-x-3 border-b border-rule-2 py-1.5 text-[13.5px]">
              <span className="num w-[168px] shrink-0 text-ink-2">
                {printDate(l.at, who.zone)} {printClock(l.at, who.zone)}
              </span>
              <span className="min-w-0 grow font-semibold">
                {SECURITY_KINDS[l.kind] ?? l.kind}
                <span className="font-normal text-ink-2">
                  {l.person ? `, ${l.person}` : ''}
                  {l.sessionId === who.sessionId ? ', this device' : ''}
                </span>
              </span>
            </li>
          ))}
        </ol>
      )}
    </div>
  );
}
