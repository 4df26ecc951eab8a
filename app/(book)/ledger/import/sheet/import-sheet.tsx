'use client';
import { useRef, useState } from 'react';
import type { SheetAnswer, SheetSkip } from '@/core/formats/sheet-import';
import { refusedSheet } from '@/core/formats/sheet-refused';
import { printMoney } from '@/core/units/money';
import { printCount } from '@/core/units/print';
import { printDate, printTime } from '@/core/units/zoned';
import type { SheetLine, SheetPreview, SheetSite } from '@/server/formats/import-sheet';
import { CARDS, PhoneHead } from '@/ui/charts/phone-head';
import { ChooseFile, useFileWork } from '@/ui/forms/file-work';
import { saveFile } from '@/ui/forms/save-file';
import { sendFile } from '@/ui/forms/send-file';
import { NotInFile } from '../not-in-file';
import { NotedThere } from '../noted-there';
import { undoImport } from '../undo-import';
import { SheetAsks } from './sheet-asks';
import { SheetColumns } from './sheet-columns';
import { SheetSites } from './sheet-sites';
import { COUNTED, PLAN, REASON, REFUSED, SKIPPED, WARNING } from './sheet-words';

const HEADS = ['Line', 'Visit', 'energy', 'amount', 'what comes of it'] as const;
/** Sites made with one request. */
const SITES_AT_ONCE = 100;
/** Rows that cannot be read, one by one: more nobody reads on a page. All of them are saved. */
const LISTED = 1000;
type Told = SheetPreview & { taken?: number; left?: number };

/** Chooses a file, shows what would come of each row, asks, takes it in part by part, and back. */
export function ImportSheet() {
  const [file, setFile] = useState<File | null>(null);
  const [seen, setSeen] = useState<Told | null>(null);
  const [answers, setAnswers] = useState<SheetAnswer[]>([]);
  const [sites, setSites] = useState<Record<string, string>>({});
  const { busy, said, say, working, reading } = useFileWork('sheet');
  const stop = useRef(false);
  // Two answers given quickly: what was read for the first of them is old by then.
  const asked = useRef(0);

  const send = async (of: File, with_: readonly SheetAnswer[] | null, make: readonly SheetSite[], take: boolean, allRefused = false): Promise<Told | null> => {
    asked.current += 1;
    const mine = asked.current;
    const { ok, body } = await sendFile(`/api/v1/import/sheet${take ? '?take=yes' : ''}`, of, { answers: with_, sites: make, allRefused });
    if (mine !== asked.current) return null;
    if (ok) {
      setSeen(body);
      setAnswers(body.answers);
      return body;
    }
    const { line, byte } = body.refused?.where ?? {};
    const where = line !== undefined ? `Line ${line}.` : byte !== undefined ? `Byte ${byte}.` : '';
    say(`${body.error ?? 'The file was refused.'} ${REFUSED[body.refused?.code] ?? ''} ${where}`.trim());
    if (!take) setSeen(null);
    return null;
  };
  const read = (of: File, with_: readonly SheetAnswer[] | null) => {
    // From now on: until the file is looked at and sent, an answer before may still come back, without this one.
    asked.current += 1;
    void reading(of, async () => {
      await send(of, with_, [], false);
    });
  };
  const answered = (a: SheetAnswer) => {
    const next = [...answers.filter((x) => !(x.code === a.code && x.column === a.column && JSON.stringify(x.lines) === JSON.stringify(a.lines))), a];
    setAnswers(next);
    if (file) read(file, next);
  };
  /** What rows near a recorded visit are; all of one kind are one answer. Without lines: all of which nothing else was said, listed or not. */
  const near = (lines: readonly number[] | null, what: 'new' | 'merge') => {
    const before = (of: string) => answers.find((a) => a.code === 'near' && a.lines && a.answer === of)?.lines ?? [];
    const all = lines ? answers.filter((a) => a.code === 'near' && !a.lines) : [{ code: 'near', answer: what }];
    const other = what === 'new' ? 'merge' : 'new';
    const sets = [
      { code: 'near', lines: [...new Set([...before(what), ...(lines ?? [])])], answer: what },
      { code: 'near', lines: before(other).filter((l) => !lines?.includes(l)), answer: other },
    ];
    const next = [...answers.filter((a) => a.code !== 'near'), ...all, ...sets.filter((a) => a.lines.length > 0)];
    setAnswers(next);
    if (file) read(file, next);
  };
  /** The rows that cannot be read as a file of their own: all of them, also those that are not listed. */
  const saveRefused = () =>
    void working(async () => {
      const all = file && seen && seen.refused.length < seen.counts.refused ? await send(file, answers, [], false, true) : seen;
      if (all) saveFile(new Blob([refusedSheet(all, whyOf(all.columns))], { type: 'text/csv' }), 'refused rows.csv');
    }, 'reads');
  const takeIn = () =>
    void working(async () => {
      if (!file) return;
      stop.current = false;
      const make = Object.entries(sites).map(([key, network]) => ({ name: (JSON.parse(key) as [string])[0], network: network.trim() }));
      let taken = 0;
      for (let part = 0; ; part++) {
        const some = make.slice(part * SITES_AT_ONCE, (part + 1) * SITES_AT_ONCE);
        const told = await send(file, answers, some, true);
        if (!told) return;
        taken += told.taken ?? 0;
        const more = (told.left ?? 0) > 0 || (part + 1) * SITES_AT_ONCE < make.length;
        say(more ? `${printCount(taken, 'row')} taken in, ${told.left} to come …` : `${printCount(taken, 'row')} taken in.`);
        if (!more) break;
        // What is refused although it could be read would be sent for ever.
        if (told.taken === 0 && some.length === 0) {
          say(`${printCount(taken, 'row')} taken in; ${printCount(told.left ?? 0, 'row')} could not be kept.`);
          break;
        }
        if (stop.current) {
          say(`Stopped: ${printCount(taken, 'row')} taken in. The same again goes on from there.`);
          break;
        }
      }
      setSites({});
    }, 'takes in');
  const undo = () =>
    void working(async () => {
      if (!seen || !file) return;
      stop.current = false;
      const back = await undoImport(
        'sheet',
        seen.importId,
        (n) => say(`${printCount(n, 'row')} taken back …`),
        () => stop.current,
      );
      await send(file, answers, [], false);
      const rest = { server: 'The rest could not be taken back just now.', asked: 'Stopped. The same again goes on from there.' };
      say(`${printCount(back.undone, 'row')} taken back. ${back.stopped ? rest[back.stopped] : 'Sites made for it stay.'}`);
    }, 'takes back');
  const notListed = seen ? seen.accepted - seen.rows.length : 0;
  const unnamed = Object.values(sites).some((n) => n.trim() === '');
  const coming = (seen?.counts.new ?? 0) + (seen?.counts.merge ?? 0) + (Object.keys(sites).length > 0 ? (seen?.counts.place ?? 0) : 0);
  return (
    <>
      <ChooseFile
        label="The file, CSV"
        accept=".csv,.txt,.tsv,text/csv,text/plain"
        busy={busy}
        said={said}
        onChoose={(chosen) => {
          setFile(chosen);
          setAnswers([]);
          setSites({});
          setSeen(null);
          if (chosen) read(chosen, null);
        }}
      />
      {seen ? (
        <>
          <p className="mb-3 text-[15px]">
            {(['new', 'merge', 'there', 'near', 'twice', 'same', 'place', 'which', 'refund', 'nothing', 'too_long'] as const)
              .filter((p) => seen.counts[p] > 0)
              .map((p) => `${seen.counts[p]} ${COUNTED[p]}`)
              .concat(
                seen.counts.waiting > 0 ? [`${seen.counts.waiting} waiting for an answer`] : [],
                seen.counts.refused > 0 ? [`${seen.counts.refused} refused`] : [],
              )
              .join(', ') || 'No row of it is a visit.'}
            {Object.keys(seen.skipped).length > 0 ? <span className="block text-ink-2">{skippedWords(seen.skipped)}</span> : null}
          </p>
          <SheetAsks asks={seen.asks} columns={seen.columns} answers={answers} onAnswer={answered} />
          <SheetColumns seen={seen} answers={answers} onAnswer={answered} />
          {seen.remembered ? <p className="mb-2 text-[14px] text-ink-2">Read as you said of such a sheet before.</p> : null}
          {answers.length > 0 ? (
            <button
              type="button"
              className="plate mb-4 !min-h-[44px]"
              disabled={busy}
              onClick={() => {
                setAnswers([]);
                if (file) read(file, []);
              }}
            >
              Ask everything again
            </button>
          ) : null}
          <SheetSites
            proposed={seen.proposed.sites}
            networks={seen.networks}
            chosen={sites}
            onChoose={(some) =>
              setSites((before) => {
                const next = { ...before };
                for (const [key, network] of some)
                  if (network === null) delete next[key];
                  else next[key] = network;
                return next;
              })
            }
          />
          {seen.refused.length > 0 ? (
            <section aria-label="Rows that cannot be read" className="mb-4">
              <h2 className="mb-1 text-[16px]">Rows that cannot be read</h2>
              <ul className="relative max-h-72 overflow-y-auto text-[14px]" tabIndex={0} aria-label="Reasons by line">
                {seen.refused.slice(0, LISTED).map((r) => (
                  <li key={r.line} className="mb-1 border-l-4 border-fault bg-fault-card px-3 py-1">
                    Line {r.line}: {r.reasons.map(whyOf(seen.columns)).join('; ')}
                  </li>
                ))}
              </ul>
              {seen.counts.refused > LISTED ? <p className="text-[14px] text-ink-2">{seen.counts.refused - LISTED} more not listed.</p> : null}
              <button type="button" className="plate mt-2 !min-h-[44px]" disabled={busy} onClick={saveRefused}>
                Save these rows to mend them
              </button>
            </section>
          ) : null}
          {seen.nearBills > 1 ? (
            <button type="button" className="plate mb-3 !min-h-[44px]" disabled={busy} onClick={() => near(null, 'merge')}>
              Put all {seen.nearBills} beside the visits recorded here
            </button>
          ) : null}
          <div className="overflow-x-auto bg-card" role="region" aria-label="Rows of the file" tabIndex={0}>
            <table className={`text-[14px] sm:min-w-[640px] ${CARDS.table}`}>
              <thead className={CARDS.head}>
                <tr className="border-b-2 border-t-2 border-ink text-left text-[12.5px] text-ink-2">
                  {HEADS.map((h) => (
                    <th key={h} scope="col" className="px-2.5 py-1.5 font-semibold">
                      {h}
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody className={CARDS.body}>
                {seen.rows.map((r) => (
                  <Row key={r.line} row={r} busy={busy} onSay={(what) => near([r.line], what)} />
                ))}
              </tbody>
            </table>
          </div>
          {notListed > 0 ? <p className="mt-1 text-[14px] text-ink-2">{printCount(notListed, 'more row')} not listed.</p> : null}
          <NotInFile sessions={seen.leftOut} unread={seen.counts.refused + seen.counts.waiting > 0} />
          <div className="mt-4 flex flex-wrap gap-2">
            <button type="button" className="plate plate-next !min-h-[44px]" disabled={busy || coming === 0 || unnamed} onClick={takeIn}>
              Take in {printCount(coming, 'row')}
            </button>
            {busy ? (
              <button type="button" className="plate !min-h-[44px]" onClick={() => (stop.current = true)}>
                Stop
              </button>
            ) : null}
            {seen.counts.there > 0 ? (
              <button type="button" className="plate !min-h-[44px]" disabled={busy} onClick={undo}>
                Take this import back
              </button>
            ) : null}
          </div>
        </>
      ) : null}
    </>
  );
}

/** Why a cell is refused, by its heading. */
const whyOf =
  (columns: Told['columns']) =>
  (x: { column: number; code: string }): string =>
    `${columns[x.column - 1]?.heading || `column ${x.column}`}: ${REASON[x.code] ?? x.code}`;

function Row({ row: r, busy, onSay }: { row: SheetLine; busy: boolean; onSay: (what: 'new' | 'merge') => void }) {
  return (
    <tr className={`border-b border-rule-2 align-top max-sm:grid-cols-3 ${CARDS.row}`}>
      <td className={`num px-2.5 py-1.5 ${CARDS.cell}`}>
        <PhoneHead>{HEADS[0]}</PhoneHead>
        {r.line}
      </td>
      <th scope="row" className={`px-2.5 py-1.5 text-left font-semibold wrap-anywhere max-sm:order-first ${CARDS.whole}`}>
        {r.site}
        <span className="block text-[12.5px] font-normal text-ink-2">
          {printDate(r.start, r.zone)}
          {r.startPrecision === 'day' ? '' : ` ${printTime(r.start, r.zone)}`}
          {r.stall ? `, stall ${r.stall}` : ''}
        </span>
        {r.warnings.map((w) => (
          <span key={w} className="block text-[12.5px] font-normal text-ink-2">
            {WARNING[w] ?? w}
          </span>
        ))}
      </th>
      <td className={`num px-2.5 py-1.5 sm:whitespace-nowrap ${CARDS.cell}`}>
        <PhoneHead>{HEADS[2]}</PhoneHead>
        {r.kWh === null ? '–' : `${r.kWh} kWh`}
      </td>
      <td className={`num px-2.5 py-1.5 ${CARDS.cell}`}>
        <PhoneHead>{HEADS[3]}</PhoneHead>
        {r.amount === null || r.currency === null ? '–' : printMoney(r.amount, r.currency)}
      </td>
      <td className={`px-2.5 py-1.5 ${CARDS.whole}`}>
        {r.visitId ? (
          <a href={`/ledger/${r.visitId}`} className="inline-block min-h-6 text-shake underline">
            {PLAN[r.plan]}
          </a>
        ) : (
          PLAN[r.plan]
        )}
        {(r.plan === 'near' && r.bills) || (r.plan === 'new' && r.visitId) ? (
          <button type="button" className="plate m-0.5 !min-h-[44px] sm:ml-2" disabled={busy} onClick={() => onSay('merge')}>
            Yes: put it beside
          </button>
        ) : null}
        {r.plan === 'near' || r.plan === 'merge' ? (
          <button type="button" className="plate m-0.5 !min-h-[44px] sm:ml-2" disabled={busy} onClick={() => onSay('new')}>
            No, another visit
          </button>
        ) : null}
        <NotedThere noted={r.noted} told={r} />
      </td>
    </tr>
  );
}

/** Lines that are no rows, by kind. */
function skippedWords(skipped: SheetPreview['skipped']): string {
  const said = (Object.keys(SKIPPED) as SheetSkip[]).filter((code) => skipped[code]).map((code) => `${skipped[code]} ${SKIPPED[code]}`);
  return `Lines that are no visits: ${said.join(', ')}.`;
}
