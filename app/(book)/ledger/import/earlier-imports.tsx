'use client';
import { useState } from 'react';
import { printCount } from '@/core/units/print';
import { printDate, printTime } from '@/core/units/zoned';
import type { ImportMade } from '@/server/formats/imports-made';
import { undoImport } from './undo-import';

const ofDays = (first: string, last: string): string => (first === last ? `of ${first}` : `from ${first} to ${last}`);

/** What was brought in before, to be taken back without its file. Asked for once it is opened. */
export function EarlierImports({ zone }: { zone: string }) {
  const [all, setAll] = useState<{ imports: ImportMade[]; more: boolean } | null>(null);
  const [said, setSaid] = useState('');
  const [busy, setBusy] = useState(false);
  /** The one that is asked about once more. */
  const [sure, setSure] = useState<string | null>(null);
  const look = async () => {
    const answer = await fetch('/api/v1/import/made');
    const body = await answer.json();
    if (answer.ok) setAll(body);
    else setSaid(body.error ?? 'It cannot be told just now.');
  };
  const working = async (work: () => Promise<void>) => {
    setBusy(true);
    try {
      await work();
    } catch {
      setSaid('The server could not be reached.');
    } finally {
      setBusy(false);
    }
  };
  const takeBack = (of: ImportMade) =>
    void working(async () => {
      const { undone, stopped } = await undoImport(of.kind, of.id, (n) => setSaid(`${printCount(n, of.kind === 'sheet' ? 'row' : 'bill')} taken back …`));
      setSaid(`${printCount(undone, of.kind === 'sheet' ? 'row' : 'bill')} taken back.${stopped ? ' The rest could not be taken back just now.' : ''}`);
      setSure(null);
      await look();
    });
  return (
    <details
      className="mt-8 border-t-2 border-ink pt-2 text-[14px]"
      onToggle={(e) => {
        if (e.currentTarget.open) void working(look);
      }}
    >
      <summary className="min-h-[44px] cursor-pointer py-2.5 text-[16px] font-semibold">What was brought in before</summary>
      <p role="status" className="min-h-6 font-semibold">
        {said}
      </p>
      {all?.imports.length === 0 ? <p className="text-ink-2">Nothing yet.</p> : null}
      <ul>
        {all?.imports.map((i) => (
          <li key={i.id} className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-rule-2 py-1.5">
            <span className="min-w-0 grow basis-[16rem]">
              <b className="block font-semibold">
                {i.kind === 'sheet' ? 'A spreadsheet' : 'Bills from a network'}, {printDate(i.at, zone)} {printTime(i.at, zone)}
                {i.by ? `, by ${i.by}` : ''}
              </b>
              <span className="text-[13px] text-ink-2">
                {[
                  i.visits > 0 ? `${printCount(i.visits, 'visit')}${i.standing < i.visits ? `, ${i.standing} of them standing` : ''}` : null,
                  i.bills > 0 ? printCount(i.bills, 'bill') : null,
                  ofDays(printDate(i.from, zone), printDate(i.to, zone)),
                ]
                  .filter(Boolean)
                  .join(', ')}
              </span>
            </span>
            {sure === i.id ? (
              <span className="flex flex-wrap items-center gap-2">
                <b className="basis-full">All of it will be withdrawn. Only its file brings it in again.</b>
                <button type="button" className="plate !min-h-[44px]" disabled={busy} onClick={() => takeBack(i)}>
                  Yes, take it back
                </button>
                <button type="button" className="plate !min-h-[44px]" disabled={busy} onClick={() => setSure(null)}>
                  Leave it
                </button>
              </span>
            ) : (
              <button type="button" className="plate !min-h-[44px]" disabled={busy} onClick={() => setSure(i.id)}>
                Take it back
              </button>
            )}
          </li>
        ))}
      </ul>
      {all?.more ? <p className="mt-1 text-ink-2">Older ones are not listed: they are taken back by their file.</p> : null}
    </details>
  );
}
