import type { Metadata } from 'next';
import Link from 'next/link';
import { ROLES } from '@/core/records/roles';
import { printDate, printTime } from '@/core/units/zoned';
import { accountOfPerson, DEMO_EMAIL } from '@/server/accounts/accounts';
import { householdsOf } from '@/server/accounts/members';
import { sessionsOf } from '@/server/accounts/sessions';
import { signedInHere } from '@/server/http/signed-in-here';
import { namesForForms } from '@/server/records/names-for-forms';
import { SettleChanges } from '../../settle/settle-changes';
import { ChangePassword } from './change-password';
import { KeptForOthers } from './kept-elsewhere';
import { OwnName } from './own-name';
import { OwnWishes } from './own-wishes';
import { Part } from './part';
import { PhoneSettings } from './phone-settings';
import { RecoveryCode } from './recovery-code';
import { SignOut } from './sign-out';
import { SignedInDevices } from './signed-in-devices';

export const metadata: Metadata = { title: 'Settings' };

const NO_PASSWORD = 'The demo is opened by one press: nobody knows its password. In a ledger of your own this is where it is looked after.';

export default async function SettingsPage() {
  const who = await signedInHere();
  const [names, account, sessions, households] = await Promise.all([
    namesForForms(who.householdId),
    accountOfPerson(who.personId),
    sessionsOf(who.personId),
    householdsOf(who.personId),
  ]);
  const demo = account?.email === DEMO_EMAIL;
  const when = (at: number) => `${printDate(at, who.zone)}, ${printTime(at, who.zone)}`;
  return (
    <div className="mx-auto w-full max-w-xl p-6 max-sm:px-4">
      <h1 className="text-[22px]">Settings</h1>
      <Part>
        <h2 className="text-[16px]">{who.name}</h2>
        <p className="mt-1 text-sm text-ink-2">
          {ROLES[who.role].label} of {who.householdName}. Prices in {who.currency}. Everybody in this household sees where and when each person charged.
        </p>
        <p className="mt-2 text-sm">
          <Link href="/settings/people" className="font-semibold text-shake underline">
            People and households
          </Link>
          : invite somebody, give roles, go to another household, leave.
        </p>
        <OwnName name={who.name} />
        <SignOut who={{ householdId: who.householdId, personId: who.personId }} />
      </Part>
      <Part id="wishes" head="Units and numbers">
        <OwnWishes wishes={who.wishes} />
      </Part>
      <Part id="along" head="In and out">
        <p className="text-sm">
          <Link href="/settings/export" className="font-semibold text-shake underline">
            Take it along
          </Link>
          : the whole ledger as one file, or as sheets.
        </p>
        <p className="mt-1 text-sm">
          <Link href="/ledger/import" className="font-semibold text-shake underline">
            Bills from a network
          </Link>
          : its record of the sessions, set against the visits.
        </p>
        <p className="mt-1 text-sm">
          <Link href="/ledger/import/sheet" className="font-semibold text-shake underline">
            A spreadsheet
          </Link>
          : years of visits kept in one, row by row.
        </p>
        <p className="mt-1 text-sm">
          <Link href="/settings/restore" className="font-semibold text-shake underline">
            Bring a ledger in
          </Link>
          : one that was taken along.
        </p>
        <p className="mt-1 text-sm">
          <Link href="/places/import" className="font-semibold text-shake underline">
            Places from a file
          </Link>
          : sites as GeoJSON or OCPI Locations.
        </p>
        <p className="mt-1 text-sm">
          <Link href="/settings/programs" className="font-semibold text-shake underline">
            Programs
          </Link>
          : tokens for programs of your own, and what they can ask.
        </p>
      </Part>
      <PhoneSettings />
      <KeptForOthers here={{ householdId: who.householdId, personId: who.personId }} households={households.map((h) => h.householdId)} />
      <Part id="settle" head="Changes to settle">
        <SettleChanges names={names} />
      </Part>
      <Part id="devices" head="Signed-in devices">
        <SignedInDevices
          devices={sessions.map((s) => ({ id: s.id, device: s.device, since: when(s.startedAt), seen: when(s.lastSeenAt), here: s.id === who.sessionId }))}
        />
      </Part>
      <Part id="recovery" head="Recovery code">
        {demo ? <p className="text-sm">{NO_PASSWORD}</p> : <RecoveryCode made={account?.recoveryMadeAt ? printDate(account.recoveryMadeAt, who.zone) : null} />}
      </Part>
      <Part id="password" head="Password">
        {demo ? <p className="text-sm">{NO_PASSWORD}</p> : <ChangePassword />}
      </Part>
      <Part id="security" head="Security log">
        <p className="text-sm">
          What happened at the doors of this household, the newest first:{' '}
          <Link href="/settings/security" className="font-semibold text-shake underline">
            open the log
          </Link>
          .
        </p>
      </Part>
    </div>
  );
}
