'use client';
import { useState } from 'react';
import { forgetHabits } from '@/client/store/habits';
import { clearSentData, openPhoneStore } from '@/client/store/phone-store';
import { forgetWho } from '@/client/store/who';
import { printCount } from '@/core/units/print';
import { postJson } from '@/ui/forms/post-json';
import { forgetDrafts } from '@/ui/forms/use-draft';
import { unsentOf } from './unsent';

/** Signing out clears this device's copy of what is sent; what is not sent yet stays for its person. */
export function SignOut({ who }: { who: { householdId: string; personId: string } }) {
  const [problem, setProblem] = useState<string | null>(null);
  const [unsent, setUnsent] = useState(0);
  const out = async (anyway: boolean) => {
    setProblem(null);
    if (!anyway) {
      const waiting = await unsentOf(who).catch(() => 0);
      setUnsent(waiting);
      if (waiting > 0) return;
    }
    const answer = await postJson('/api/v1/session', {}, 'DELETE');
    if (!answer.ok) return setProblem(answer.error);
    const store = await openPhoneStore(who.householdId, who.personId).catch(() => null);
    if (store) await clearSentData(store);
    store?.close();
    forgetWho();
    forgetHabits();
    forgetDrafts();
    location.assign('/sign-in');
  };
  return (
    <>
      <button id="sign-out" type="button" className="plate mt-3" onClick={() => void out(false)}>
        Sign out
      </button>
      {unsent > 0 ? (
        <div role="alert" className="mt-3 border-l-4 border-fault bg-fault-card px-3 py-2">
          <p className="font-bold">
            {printCount(unsent, 'thing')} recorded on this device {unsent === 1 ? 'is' : 'are'} not sent yet.
          </p>
          <p className="text-sm">
            Signed out, they stay on this device and are sent when you sign in here again. Whoever else signs in here is told that there are some, not what they
            say.
          </p>
          <div className="mt-2 flex flex-wrap gap-2">
            <button type="button" className="plate !min-h-[44px]" onClick={() => setUnsent(0)}>
              Stay signed in
            </button>
            <button type="button" className="plate plate-bad !min-h-[44px]" onClick={() => void out(true)}>
              Sign out, keep them here
            </button>
          </div>
        </div>
      ) : null}
      {problem ? (
        <p role="alert" className="mt-2 text-sm font-semibold text-fault">
          {problem}
        </p>
      ) : null}
    </>
  );
}
