'use client';
import { useRef, useState } from 'react';
import type { LedgerBatch, LedgerFile } from '@/core/formats/ledger-file';
import { refusedWords } from '@/core/formats/ledger-refused-words';
import { printCount } from '@/core/units/print';
import type { LedgerTold } from '@/server/formats/ledger-in';
import { ChooseFile, useFileWork } from '@/ui/forms/file-work';
import type { Names } from '@/ui/records/form-fields';
import { LedgerDifferences, type Theirs } from './ledger-differences';

type Person = { personId: string; name: string };
type Sum = Omit<LedgerTold, 'taken'> & { taken: Record<string, number> /** Names of those of the file that are not here. */; photos: string[] };
const nothing = (): Sum => ({
  taken: { record: 0, event: 0, watch: 0, view: 0, closed: 0 },
  already: 0,
  differs: [],
  refused: [],
  twins: [],
  same: {},
  photos: [],
});
/** Photos that are asked of at once. */
const PHOTOS_AT_ONCE = 500;
/** Names that are listed; more are counted. */
const LISTED = 12;

/** What came in, or would, in words. */
function counted({ taken, already, differs, refused, photos }: Sum): string {
  const parts = [
    taken.record && printCount(taken.record, 'record'),
    taken.event && printCount(taken.event, 'event'),
    taken.watch && `${printCount(taken.watch, 'pair')} on watch`,
    taken.view && printCount(taken.view, 'saved comparison'),
    taken.closed && printCount(taken.closed, 'closed month'),
    photos.length > 0 && printCount(photos.length, 'photo'),
  ].filter(Boolean);
  const rest = [already && `${already} here already`, differs.length && `${differs.length} that differ`, refused.length && `${refused.length} refused`].filter(
    Boolean,
  );
  return `${parts.join(', ') || 'Nothing new'}${rest.length > 0 ? `; ${rest.join(', ')}` : ''}.`;
}

/** What of a file is here under another id: by their names, prices counted. */
function twinWords(twins: LedgerTold['twins']): string {
  const named = twins.filter((t) => t.name !== '' && t.type !== 'stall').map((t) => t.name);
  const rest = [
    named.length > LISTED && `${named.length - LISTED} more`,
    ...(['stall', 'tariff'] as const).map((type) => {
      const n = twins.filter((t) => t.type === type).length;
      return n > 0 && printCount(n, type === 'stall' ? 'stall' : 'price');
    }),
  ].filter(Boolean);
  return [...named.slice(0, LISTED), ...rest].join(', ');
}

/** Chooses a file, says who its people are here, shows what would come of it, and brings it in piece by piece. */
export function RestoreLedger({
  here,
  household,
  names,
}: {
  here: readonly Person[];
  household: { name: string; currency: string; zone: string };
  names: Names;
}) {
  const [file, setFile] = useState<LedgerFile | null>(null);
  const [people, setPeople] = useState<Record<string, string>>({});
  const [seen, setSeen] = useState<Sum | null>(null);
  const [theirs, setTheirs] = useState<Theirs>({});
  const [byName, setByName] = useState(true);
  const { busy, said, say, working, reading } = useFileWork('ledger');
  const stop = useRef(false);

  const open = (chosen: File) =>
    reading(chosen, async () => {
      // The reader of zips is only carried by those who bring one.
      const { openLedger, proposedPeople } = await import('@/core/formats/ledger-file');
      const read = await openLedger(chosen);
      if (!read.ok) return say(refusedWords(read.refused));
      const proposed = Object.fromEntries([...proposedPeople(read.value.head.people, here)].map(([id, to]) => [id, to ?? '']));
      setFile(read.value);
      setPeople(proposed);
      if (!Object.values(proposed).includes('')) await look(read.value, proposed, true);
    });
  const send = async (piece: LedgerBatch, who: Record<string, string>, take: boolean, same?: Record<string, string>): Promise<LedgerTold | null> => {
    for (;;) {
      const answer = await fetch('/api/v1/import/ledger', {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ ...piece, people: who, theirs, take, same }),
      });
      if (answer.ok) return answer.json();
      if (answer.status === 429) {
        await new Promise((go) => setTimeout(go, 1000 * Number(answer.headers.get('retry-after') ?? 5)));
        continue;
      }
      const [alone, ...others] = Object.entries(piece).flatMap(([kind, list]) =>
        list.map(() => (kind === 'closed' ? kind : kind.slice(0, -1)) as LedgerTold['refused'][number]['kind']),
      );
      // One thing that is too large for a request costs itself.
      if (answer.status === 413 && alone && others.length === 0)
        return {
          ...(nothing() as Omit<Sum, 'photos'> as LedgerTold),
          refused: [{ kind: alone, id: '', path: alone, reason: 'is too large' }],
        };
      say(((await answer.json()) as { error?: string }).error ?? 'It was refused.');
      return null;
    }
  };
  /** All pieces, one after the other. @returns what came of them; `null` where it stopped */
  const through = async (of: LedgerFile, who: Record<string, string>, take: boolean, names: boolean): Promise<Sum | null> => {
    const { ledgerBatches, ofPlacesAlone } = await import('@/core/formats/ledger-file');
    const known = names && ofPlacesAlone(of);
    const sum = nothing();
    for await (const piece of ledgerBatches(of)) {
      if (!piece.ok) {
        say(refusedWords(piece.refused));
        return null;
      }
      const told = await send(piece.value, who, take, known ? sum.same : undefined);
      if (!told) return null;
      for (const kind of Object.keys(told.taken)) sum.taken[kind] = (sum.taken[kind] ?? 0) + told.taken[kind as keyof LedgerTold['taken']];
      sum.already += told.already;
      sum.differs.push(...told.differs);
      sum.refused.push(...told.refused);
      sum.twins.push(...told.twins);
      Object.assign(sum.same, told.same);
      say(`${take ? 'Bringing in' : 'Looking'} … ${counted(sum)}`);
      if (stop.current) {
        say(take ? `Stopped: ${counted(sum)} The same again goes on from there.` : 'Stopped. Nothing was changed.');
        return null;
      }
    }
    return sum;
  };
  const look = async (of: LedgerFile, who: Record<string, string>, names = byName) => {
    stop.current = false;
    const sum = await through(of, who, false, names);
    const photos = sum && (await lacking(of));
    setSeen(sum && photos && { ...sum, photos });
    if (sum && photos) say(counted({ ...sum, photos }));
  };
  const bringIn = () =>
    working(async () => {
      stop.current = false;
      if (!file) return;
      const wanted = await lacking(file);
      const lost = wanted && (await photos(file, wanted));
      if (wanted === null || lost === null) return;
      const sum = await through(file, people, true, byName);
      if (!sum) return;
      // What was refused is read now that it is known.
      setSeen({ ...nothing(), refused: sum.refused });
      setTheirs({});
      say(
        `Brought in: ${counted({ ...sum, photos: wanted.filter((name) => !lost.includes(name)) })}${lost.length > 0 ? ` ${printCount(lost.length, 'photo')} could not be kept, or ${lost.length === 1 ? 'is' : 'are'} not in the file.` : ''}`,
      );
    }, 'takes in');
  /** The pictures of the file that are not here, by their names; `null` where that cannot be told. */
  const lacking = async (of: LedgerFile): Promise<string[] | null> => {
    const names = of.head.photos.map((p) => p.name);
    const found: string[] = [];
    for (let from = 0; from < names.length; from += PHOTOS_AT_ONCE) {
      const answer = await fetch('/api/v1/import/ledger/photos', {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ names: names.slice(from, from + PHOTOS_AT_ONCE) }),
      });
      const body = await answer.json();
      if (!answer.ok) {
        say(body.error ?? 'It was refused.');
        return null;
      }
      found.push(...body.lacking);
    }
    return found;
  };
  /** Brings pictures in, so that nothing speaks of one that is not there. @returns those that could not be kept; `null` where it stopped */
  const photos = async (of: LedgerFile, wanted: readonly string[]): Promise<string[] | null> => {
    const lost: string[] = [];
    for (const [i, name] of wanted.entries()) {
      const bytes = await of.photo(name);
      if (!bytes.ok) {
        say(refusedWords(bytes.refused));
        return null;
      }
      const answer =
        bytes.value &&
        (await fetch(`/api/v1/import/ledger/photos/${name}`, {
          method: 'PUT',
          headers: { 'content-type': 'image/jpeg' },
          body: new Blob([new Uint8Array(bytes.value)]),
        }));
      if (!answer?.ok) lost.push(name);
      say(`Photo ${i + 1} of ${wanted.length} …`);
      if (stop.current) {
        say('Stopped. The same again goes on from there.');
        return null;
      }
    }
    return lost;
  };
  const asked = Object.values(people).includes('');
  const coming = seen ? Object.values(seen.taken).reduce((a, b) => a + b, 0) + Object.keys(theirs).length + seen.photos.length : 0;
  const differ = file ? (['currency', 'zone'] as const).filter((k) => file.head.household[k] !== household[k]) : [];
  return (
    <>
      <ChooseFile
        label="The file, ZIP or JSON"
        accept=".zip,.json,application/zip,application/json"
        busy={busy}
        said={said}
        onChoose={(chosen) => {
          setFile(null);
          setSeen(null);
          setTheirs({});
          setByName(true);
          if (chosen) void open(chosen);
        }}
      />
      {file ? (
        <>
          <p className="mb-3 text-[15px]">
            {file.head.household.name}, {printCount(file.head.photos.length, 'photo')}.
            {differ.map((k) => ` Its ${k} is ${file.head.household[k]}, here it is ${household[k]}: that stays.`).join('')}
          </p>
          {file.head.people.length > 0 ? (
            <fieldset className="mb-4" disabled={busy}>
              <legend className="mb-1 text-[16px] font-bold">Who its people are here</legend>
              {file.head.people.map((p) => (
                <label key={p.personId} className="mb-2 flex flex-wrap items-center gap-2 text-[15px]">
                  <span className="min-w-[9rem] font-semibold">{p.name}</span>
                  <select
                    className="field !min-h-[44px]"
                    value={people[p.personId] ?? ''}
                    onChange={(e) => {
                      const next = { ...people, [p.personId]: e.target.value };
                      setPeople(next);
                      setSeen(null);
                      if (!Object.values(next).includes('')) void working(() => look(file, next), 'reads');
                    }}
                  >
                    <option value="">who is that here?</option>
                    {here.map((h) => (
                      <option key={h.personId} value={h.personId}>
                        {h.name}
                      </option>
                    ))}
                  </select>
                </label>
              ))}
              <p className="text-[13px] text-ink-2">Somebody who is not here yet is invited first, under People and households.</p>
            </fieldset>
          ) : null}
          {seen && (seen.twins.length > 0 || !byName) ? (
            <div className="mb-4 text-[14px]">
              <label className="flex min-h-[44px] items-center gap-3 font-semibold">
                <input
                  type="checkbox"
                  className="size-5 shrink-0 accent-ink"
                  disabled={busy}
                  checked={byName}
                  onChange={(e) => {
                    setByName(e.target.checked);
                    setSeen(null);
                    setTheirs({});
                    void working(() => look(file, people, e.target.checked), 'reads');
                  }}
                />
                What is of one name is one: it is added to and never doubled
              </label>
              {seen.twins.length > 0 ? <p className="pl-8 text-[13px] text-ink-2">Here already under another id: {twinWords(seen.twins)}.</p> : null}
            </div>
          ) : null}
          {seen ? <LedgerDifferences seen={seen} theirs={theirs} onTheirs={setTheirs} names={names} zone={household.zone} disabled={busy} /> : null}
          <div className="mt-4 flex flex-wrap gap-2">
            <button type="button" className="plate plate-next !min-h-[44px]" disabled={busy || asked || !seen || coming === 0} onClick={() => void bringIn()}>
              Bring it in
            </button>
            {busy ? (
              <button type="button" className="plate !min-h-[44px]" onClick={() => (stop.current = true)}>
                Stop
              </button>
            ) : null}
          </div>
        </>
      ) : null}
    </>
  );
}
