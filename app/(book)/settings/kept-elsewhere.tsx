'use client';
import { useCallback, useEffect, useState } from 'react';
import { forgetStore, inStoreOf, type KeptElsewhere, keptElsewhere } from '@/client/store/kept-elsewhere';
import { printCount } from '@/core/units/print';
import { saveFile } from '@/ui/forms/save-file';
import { Part } from './part';

type Here = { householdId: string; personId: string };

/** What was recorded on this device for somebody else, or elsewhere, and is not sent. Nothing when there is none. */
export function KeptForOthers({ here, households }: { here: Here; households: readonly string[] }) {
  const [all, setAll] = useState<KeptElsewhere[]>([]);
  const read = useCallback(() => void keptElsewhere(here).then(setAll), [here]);
  useEffect(read, [read]);
  if (all.length === 0) return null;
  return (
    <Part id="elsewhere" head="Waits on this device">
      <ul>
        {all.map((k) => (
          <li key={`${k.householdId} ${k.personId}`} className="border-b border-rule-2 py-2 text-sm last:border-0">
            {k.personId !== here.personId ? <OfSomebody kept={k} /> : <OfOneself kept={k} member={households.includes(k.householdId)} onGone={read} />}
          </li>
        ))}
      </ul>
    </Part>
  );
}

const householdOf = (k: KeptElsewhere): string => k.whose?.householdName ?? 'another household';

function OfSomebody({ kept }: { kept: KeptElsewhere }) {
  const name = kept.whose?.name ?? 'somebody else';
  return (
    <>
      <b>{printCount(kept.unsent, 'thing')}</b> that {name} recorded for {householdOf(kept)}: sent when {kept.whose ? name : 'that person'} signs in here.
    </>
  );
}

function OfOneself({ kept, member, onGone }: { kept: KeptElsewhere; member: boolean; onGone: () => void }) {
  const [it, is, stays] = kept.unsent === 1 ? ['it', 'It is', 'It stays'] : ['them', 'They are', 'They stay'];
  const [asked, setAsked] = useState(false);
  const [saved, setSaved] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const trying = (work: Promise<unknown>, then: () => void) =>
    void work.then(then, (error: unknown) => setProblem(`This did not work: ${error instanceof Error ? error.message : String(error)}`));
  const save = async () => {
    const { ledgerOfUnsent } = await import('@/client/store/ledger-of-unsent');
    saveFile(await inStoreOf(kept, (store) => ledgerOfUnsent(store, kept)), 'mile-ledger-not-sent.zip');
  };
  return (
    <>
      <p>
        <b>{printCount(kept.unsent, 'thing')}</b> that you recorded for {householdOf(kept)}
        {member
          ? ': sent when you are there again.'
          : `. You do not belong to it any more, so that nobody takes ${it}. ${stays} here until you take ${it} off; a file of ${it} can be brought into another ledger.`}
      </p>
      <div className="mt-2 flex flex-wrap gap-2">
        {member ? (
          <a href="/settings/people" className="plate !min-h-[44px]">
            Go there
          </a>
        ) : null}
        <button type="button" className="plate !min-h-[44px]" onClick={() => trying(save(), () => setSaved(true))}>
          Save as a file
        </button>
        <button type="button" className="plate plate-bad !min-h-[44px]" aria-expanded={asked} onClick={() => setAsked(true)}>
          Take off this device
        </button>
      </div>
      {saved ? (
        <p role="status" className="mt-2 text-[13px] text-ink-2">
          Saved. “Bring a ledger in” takes the file.
        </p>
      ) : null}
      {asked ? (
        <div role="alert" className="mt-2 border-l-4 border-fault bg-fault-card px-3 py-2">
          <p className="font-bold">
            {is} nowhere else{saved ? ' but in the file that you saved' : ''}. Taken off here, {is.toLowerCase()} lost.
          </p>
          <div className="mt-2 flex flex-wrap gap-2">
            <button type="button" className="plate !min-h-[44px]" onClick={() => setAsked(false)}>
              Keep {it}
            </button>
            <button type="button" className="plate plate-bad !min-h-[44px]" onClick={() => trying(forgetStore(kept), onGone)}>
              Take {it} off
            </button>
          </div>
        </div>
      ) : null}
      {problem ? (
        <p role="alert" className="mt-2 font-semibold text-fault">
          {problem}
        </p>
      ) : null}
    </>
  );
}
