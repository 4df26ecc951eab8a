'use client';
import * as Popover from '@radix-ui/react-popover';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { v7 } from 'uuid';
import type { CompareSentence } from '@/core/compare/sentence';
import { WATCHED, WATCHED_NAMES, type Watch, type Watched } from '@/core/compare/watch';
import type { Grouping } from '@/core/figures/groupings';
import { Floating } from '../forms/floating';
import { FormAlert } from '../forms/form-alert';
import { FormField } from '../forms/form-field';
import { PickOne } from '../forms/pick-one';
import { postJson } from '../forms/post-json';
import { ForDrivers } from '../road/role';
import { Working } from './sentences';

export type WatchRow = { watch: Watch; said: CompareSentence; names: [string, string]; sinceWords: string };
type Pickable = { id: string; name: string };

/** Pairs that were put on watch beforehand: what the visits since then say of them, and a way to put another. */
export function OnWatch({ rows, by, one, groups }: { rows: WatchRow[]; by: Grouping; one: string; groups: Pickable[] }) {
  const router = useRouter();
  const [problem, setProblem] = useState<string | null>(null);
  const end = async (id: string) => {
    const answer = await postJson('/api/v1/watches', { id }, 'DELETE');
    setProblem(answer.ok ? null : (answer.error ?? 'The server did not take this.'));
    if (answer.ok) router.refresh();
  };
  if (rows.length === 0 && groups.length < 2) return null;
  return (
    <section aria-labelledby="watch-head" className="mb-3 bg-card px-4 py-2">
      <div className="flex flex-wrap items-baseline gap-x-3">
        <h2 id="watch-head" className="text-[15px]">
          On watch
        </h2>
        <span className="grow" />
        <ForDrivers>{groups.length > 1 ? <PutOnWatch by={by} one={one} groups={groups} /> : null}</ForDrivers>
      </div>
      {rows.length === 0 ? (
        <p className="py-0.5 text-[13.5px] text-ink-2">
          None. A pair found on this page needs as many times the evidence as pairs were looked at; one that is put on watch before the visits does not.
        </p>
      ) : (
        <ul>
          {rows.map(({ watch, said, names, sinceWords }) => (
            <li key={watch.id} className="flex flex-wrap items-baseline gap-x-3 border-t border-rule-2 py-1 text-[15px]">
              <span className="min-w-[min(100%,320px)] flex-1">
                <span className="block text-[12.5px] text-ink-2">
                  {names[0]} and {names[1]}: {WATCHED[watch.figure]}, since {sinceWords}
                </span>
                {said.text}
              </span>
              {said.working.length > 0 ? <Working lines={said.working} about={said.text} /> : null}
              <ForDrivers>
                <button
                  type="button"
                  className="no-print min-h-[28px] text-[13px] font-semibold text-shake underline"
                  aria-label={`End the watch on ${names[0]} and ${names[1]}: ${WATCHED[watch.figure]}`}
                  onClick={() => end(watch.id)}
                >
                  End the watch
                </button>
              </ForDrivers>
            </li>
          ))}
        </ul>
      )}
      <FormAlert message={problem} />
    </section>
  );
}

function PutOnWatch({ by, one, groups }: { by: Grouping; one: string; groups: Pickable[] }) {
  const router = useRouter();
  const [open, setOpen] = useState(false);
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const [figure, setFigure] = useState<Watched>('first_try');
  const [pair, setPair] = useState<[string, string]>(['', '']);
  const [id, setId] = useState(() => v7());
  const put = async () => {
    const [a, b] = pair;
    if (a === '' || b === '' || a === b) return setProblem('Choose two different ones.');
    setBusy(true);
    const answer = await postJson('/api/v1/watches', { id, by, a, b, figure });
    setBusy(false);
    setProblem(answer.ok ? null : (answer.error ?? 'The server did not take this.'));
    if (!answer.ok) return;
    setId(v7());
    setOpen(false);
    router.refresh();
  };
  const field = 'field !min-h-[44px] w-full';
  return (
    <Popover.Root
      open={open}
      onOpenChange={(is) => {
        setOpen(is);
        setProblem(null);
      }}
    >
      <Popover.Trigger className="no-print min-h-[32px] text-[13px] font-semibold text-shake underline">Put a pair on watch</Popover.Trigger>
      <Floating label="Put a pair on watch" align="end" className="w-[min(340px,calc(100vw-24px))] p-4">
        <form
          noValidate
          onSubmit={(e) => {
            e.preventDefault();
            put();
          }}
        >
          {([0, 1] as const).map((i) => (
            <FormField key={i} id={`watch-${i}`} label={i === 0 ? `One ${one}` : 'and another'}>
              <PickOne
                id={`watch-${i}`}
                none="Choose"
                list={groups}
                value={pair[i]}
                className={field}
                onPick={(key) => setPair(i === 0 ? [key, pair[1]] : [pair[0], key])}
              />
            </FormField>
          ))}
          <FormField id="watch-figure" label="To tell">
            <select id="watch-figure" className={field} value={figure} onChange={(e) => setFigure(e.target.value as Watched)}>
              {WATCHED_NAMES.map((f) => (
                <option key={f} value={f}>
                  {WATCHED[f]}
                </option>
              ))}
            </select>
          </FormField>
          <p className="mb-2 text-[13px] text-ink-2">Only visits from now on will count for it.</p>
          <FormAlert message={problem} />
          <button type="submit" disabled={busy} className="plate plate-next !min-h-[44px] w-full">
            Put on watch
          </button>
        </form>
      </Floating>
    </Popover.Root>
  );
}
