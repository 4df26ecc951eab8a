'use client';
import { useState } from 'react';
import { forgetHabits } from '@/client/store/habits';
import { clearSentData, openPhoneStore } from '@/client/store/phone-store';
import { forgetWho } from '@/client/store/who';
import { postJson } from '@/ui/forms/post-json';

/** Signing out clears this device's copy of what is sent; what is not sent yet stays for its person. */
export function SignOut({ who }: { who: { householdId: string; personId: string } }) {
  const [problem, setProblem] = useState<string | null>(null);
  const out = async () => {
    const answer = await postJson('/api/v1/session', {}, 'DELETE');
    if (!answer.ok) return setProblem(answer.error);
    const store = await openPhoneStore(who.householdId, who.personId).catch(() => null);
    if (store) await clearSentData(store);
    store?.close();
    forgetWho();
    forgetHabits();
    location.assign('/sign-in');
  };
  return (
    <>
      <button type="button" className="plate mt-3" onClick={() => void out()}>
        Sign out
      </button>
      {problem ? (
        <p role="alert" className="mt-2 text-sm font-semibold text-fault">
          {problem}
        </p>
      ) : null}
    </>
  );
}
