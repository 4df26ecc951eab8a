import type { Metadata } from 'next';
import Link from 'next/link';
import { ROLES } from '@/core/records/roles';
import { printDate } from '@/core/units/zoned';
import { accountOfPerson, DEMO_EMAIL } from '@/server/accounts/accounts';
import { invitationsOf } from '@/server/accounts/invitations';
import { householdsOf, membersOf } from '@/server/accounts/members';
import { signedInHere } from '@/server/http/signed-in-here';
import { hasRunningVisit } from '@/server/visits/running-visit';
import { Part } from '../part';
import { DeleteForm } from './delete-form';
import { HouseholdForm } from './household-form';
import { Households } from './households';
import { Invite } from './invite';
import { PeopleList } from './people-list';

export const metadata: Metadata = { title: 'People and households' };

/** Who belongs to the household and as what, the ways in, and one's other households. */
export default async function PeoplePage() {
  const who = await signedInHere();
  const owner = who.role === 'owner';
  const [people, households, invitations, account] = await Promise.all([
    membersOf(who.householdId),
    householdsOf(who.personId),
    owner ? invitationsOf(who.householdId) : [],
    accountOfPerson(who.personId),
  ]);
  const lines = await Promise.all(
    households.map(async (h) => ({ ...h, running: await hasRunningVisit({ householdId: h.householdId, personId: who.personId }) })),
  );
  const demo = account?.email === DEMO_EMAIL;
  const day = (at: number) => printDate(at, who.zone);
  const household = { householdName: who.householdName, currency: who.currency, zone: who.zone };
  const alone = households.filter((h) => h.role === 'owner' && h.people === 1).map((h) => h.name);
  return (
    <div className="mx-auto w-full max-w-xl p-6 max-sm:px-4">
      <p className="mb-3">
        <Link href="/settings" className="text-sm font-semibold text-shake underline">
          Back to the settings
        </Link>
      </p>
      <h1 className="text-[22px]">People and households</h1>
      <Part id="people" head={who.householdName}>
        <p className="text-sm text-ink-2">
          Everybody here sees where and when each charged; of a visit marked private, the others see only that the car was charged, its kWh and what was paid.
          What somebody recorded stays when they leave.
        </p>
        <PeopleList
          here={who.householdId}
          me={who.personId}
          owner={owner}
          people={people.map((p) => ({ ...p, since: day(p.since), leftAt: p.leftAt === null ? null : day(p.leftAt) }))}
        />
      </Part>
      {owner ? (
        <Part id="invite" head="Invite somebody">
          <Invite open={invitations.map((i) => ({ id: i.id, text: `${ROLES[i.role].label}, made ${day(i.madeAt)}, until ${day(i.expiresAt)}` }))} />
        </Part>
      ) : null}
      <Part id="households" head="Your households">
        <Households here={who.householdId} personId={who.personId} households={lines} household={household} />
      </Part>
      {owner ? (
        <Part id="household" head="This household">
          <HouseholdForm url="/api/v1/household" method="PUT" household={household} button="Keep this" />
        </Part>
      ) : null}
      {owner && !demo ? (
        <Part id="delete-household" head="Delete this household">
          <p className="text-sm">
            Every visit, place, car, price and photo of {who.householdName} goes, for everybody in it, and cannot be brought back. The people keep their
            accounts.
          </p>
          <p className="my-2 text-sm">
            First{' '}
            <a href="/api/v1/household/export" download className="font-semibold text-shake underline">
              take it along as a file
            </a>
            : everything recorded, with the photos.
          </p>
          <DeleteForm url="/api/v1/household" word={who.householdName} wordLabel="The household’s name" button="Delete the household" />
        </Part>
      ) : null}
      {demo ? null : (
        <Part id="delete-account" head="Delete your account">
          <p className="mb-2 text-sm">
            Your name and address go, every device is signed out. What you recorded stays with its household under “a former driver”.
            {alone.length > 0 ? ` You are alone in ${alone.join(' and ')}: all that is recorded there goes with you.` : ''}
          </p>
          <DeleteForm url="/api/v1/me" word={who.name} wordLabel="Your name" button="Delete the account" />
        </Part>
      )}
    </div>
  );
}
