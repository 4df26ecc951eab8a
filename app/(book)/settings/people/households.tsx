'use client';
import { useState } from 'react';
import { askWho } from '@/client/store/who';
import { type MemberRole, ROLES } from '@/core/records/roles';
import { printCount } from '@/core/units/print';
import { FormAlert } from '@/ui/forms/form-alert';
import { postJson } from '@/ui/forms/post-json';
import { unsentOf } from '../unsent';
import { HouseholdForm } from './household-form';

/** `running`: a visit that one records runs in it. */
type Line = { householdId: string; name: string; role: MemberRole; people: number; running: boolean };

/** The households of a person: which one this is, the way to another, and a new one. */
export function Households({
  here,
  personId,
  households,
  household,
}: {
  here: string;
  personId: string;
  households: Line[];
  household: { currency: string; zone: string };
}) {
  const [problem, setProblem] = useState<string | null>(null);
  const [waiting, setWaiting] = useState<{ to: Line; unsent: number } | null>(null);
  const [starting, setStarting] = useState(false);
  const running = households.some((h) => h.householdId === here && h.running);
  const go = async (to: Line, anyway: boolean) => {
    setProblem(null);
    const unsent = anyway ? 0 : await unsentOf({ householdId: here, personId }).catch(() => 0);
    if (unsent > 0 || (!anyway && running)) return setWaiting({ to, unsent });
    const answer = await postJson('/api/v1/household/here', { householdId: to.householdId }, 'PUT');
    if (!answer.ok) return setProblem(answer.error);
    await askWho();
    location.assign('/');
  };
  return (
    <>
      <ul aria-label="Households">
        {households.map((h) => (
          <li key={h.householdId} className="flex flex-wrap items-center gap-3 border-b border-rule-2 py-2">
            <span className="min-w-[150px] grow text-[14.5px]">
              <b>{h.name}</b>
              {h.householdId === here ? ' (this one)' : ''}
              <span className="block text-[13px] text-ink-2">
                {ROLES[h.role].label}, {printCount(h.people, 'person', 'people')}
                {h.running ? `. A visit of yours is running ${h.householdId === here ? 'here' : 'there'}` : ''}
              </span>
            </span>
            {h.householdId === here ? null : (
              <button type="button" className="plate" aria-label={`Go to ${h.name}`} onClick={() => void go(h, false)}>
                Go there
              </button>
            )}
          </li>
        ))}
      </ul>
      {waiting ? (
        <div role="alert" className="mt-3 border-l-4 border-fault bg-fault-card px-3 py-2">
          {running ? <p className="text-sm font-semibold">A visit of yours is running here. It stays open: come back to end it.</p> : null}
          {waiting.unsent > 0 ? (
            <>
              <p className="text-sm font-semibold">
                {printCount(waiting.unsent, 'thing')} recorded on this device for this household {waiting.unsent === 1 ? 'is' : 'are'} not sent yet.
              </p>
              <p className="text-sm">They stay on this device and are sent when you are in this household again.</p>
            </>
          ) : null}
          <div className="mt-2 flex flex-wrap gap-2">
            <button type="button" className="plate !min-h-[44px]" onClick={() => setWaiting(null)}>
              Stay here
            </button>
            <button type="button" className="plate plate-bad !min-h-[44px]" onClick={() => void go(waiting.to, true)}>
              Go to {waiting.to.name}
            </button>
          </div>
        </div>
      ) : null}
      {starting ? (
        <div className="mt-4">
          <HouseholdForm
            url="/api/v1/households"
            method="POST"
            household={{ householdName: '', currency: household.currency, zone: household.zone }}
            button="Start it and go there"
            then="/"
          />
        </div>
      ) : (
        <button type="button" className="plate mt-3" onClick={() => setStarting(true)}>
          Start another household
        </button>
      )}
      <div className="mt-3">
        <FormAlert message={problem} />
      </div>
    </>
  );
}
