'use client';
import { useState } from 'react';
import { inStoreOf } from '@/client/store/kept-elsewhere';
import { unsentIn } from '@/client/store/phone-store';
import { GIVEN_ROLES, type MemberRole, ROLES } from '@/core/records/roles';
import { printCount } from '@/core/units/print';
import { FormAlert } from '@/ui/forms/form-alert';
import { useSetting } from '../use-setting';

export type PersonLine = { personId: string; name: string; role: MemberRole; since: string; leftAt: string | null };
/** `unsent`: how much of what oneself recorded on this device would never be sent. */
type Asked = { person: PersonLine; what: 'remove' | 'leave' | 'hand_over'; unsent: number };

const ASK: Record<Asked['what'], (p: PersonLine) => string> = {
  remove: (p) => `Remove ${p.name}? What they recorded stays; their devices see nothing of this household any more.`,
  leave: () => 'Leave this household? What you recorded stays here; you see nothing of it any more.',
  hand_over: (p) => `Hand the household over to ${p.name}? You are a driver of it from then on.`,
};
const DO: Record<Asked['what'], string> = { remove: 'Remove', leave: 'Leave', hand_over: 'Hand over' };

/** The people of a household and what each may; the owner gives roles, removes and hands over, everybody else may leave. */
export function PeopleList({ me, here, owner, people }: { me: string; here: string; owner: boolean; people: PersonLine[] }) {
  const [asked, setAsked] = useState<Asked | null>(null);
  const { send, busy, problem } = useSetting();
  // As this device has it: nobody waits for a network to be asked.
  const ask = async (person: PersonLine, what: Asked['what']) =>
    setAsked({ person, what, unsent: what === 'leave' ? await inStoreOf({ householdId: here, personId: me }, unsentIn).catch(() => 0) : 0 });
  const doIt = async ({ person, what }: Asked) => {
    const done =
      what === 'hand_over'
        ? await send('/api/v1/members', { personId: person.personId, role: 'owner' }, 'PUT')
        : await send('/api/v1/members', { personId: person.personId }, 'DELETE');
    if (done) setAsked(null);
    if (done && what === 'leave') location.assign('/');
  };
  return (
    <>
      <ul aria-label="People" className="mt-3">
        {people.map((p) => (
          <li key={p.personId} className="border-b border-rule-2 py-2">
            <div className="flex flex-wrap items-center gap-x-3 gap-y-2">
              <span className="min-w-[150px] grow text-[14.5px]">
                <b>{p.name}</b>
                {p.personId === me ? ' (you)' : ''}
                <span className="block text-[13px] text-ink-2">
                  {p.leftAt === null ? `${ROLES[p.role].label} since ${p.since}: ${ROLES[p.role].may}` : `left on ${p.leftAt}`}
                </span>
              </span>
              {owner && p.leftAt === null && p.role !== 'owner' ? (
                <>
                  <select
                    aria-label={`What ${p.name} may do`}
                    className="field !w-auto"
                    disabled={busy}
                    value={p.role}
                    onChange={(e) => void send('/api/v1/members', { personId: p.personId, role: e.target.value }, 'PUT')}
                  >
                    {GIVEN_ROLES.map((r) => (
                      <option key={r} value={r}>
                        {ROLES[r].label}
                      </option>
                    ))}
                  </select>
                  <button type="button" className="plate" onClick={() => void ask(p, 'hand_over')} aria-label={`Hand over to ${p.name}`}>
                    Hand over
                  </button>
                  <button type="button" className="plate" onClick={() => void ask(p, 'remove')} aria-label={`Remove ${p.name}`}>
                    Remove
                  </button>
                </>
              ) : null}
              {p.personId === me && p.role !== 'owner' ? (
                <button type="button" className="plate" onClick={() => void ask(p, 'leave')}>
                  Leave
                </button>
              ) : null}
            </div>
            {asked?.person.personId === p.personId ? (
              <div role="alert" className="mt-2 border-l-4 border-fault bg-fault-card px-3 py-2">
                <p className="text-sm font-semibold">{ASK[asked.what](p)}</p>
                {asked.unsent > 0 ? (
                  <p className="mt-1 text-sm">
                    {printCount(asked.unsent, 'thing')} recorded on this device {asked.unsent === 1 ? 'is' : 'are'} not sent yet, and would not be taken any
                    more.
                  </p>
                ) : null}
                <div className="mt-2 flex flex-wrap gap-2">
                  <button type="button" className="plate !min-h-[44px]" onClick={() => setAsked(null)}>
                    No
                  </button>
                  <button type="button" className="plate plate-bad !min-h-[44px]" disabled={busy} onClick={() => void doIt(asked)}>
                    {DO[asked.what]}
                  </button>
                </div>
              </div>
            ) : null}
          </li>
        ))}
      </ul>
      <div className="mt-3">
        <FormAlert message={problem} />
      </div>
    </>
  );
}
