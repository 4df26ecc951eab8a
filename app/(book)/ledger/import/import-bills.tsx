'use client';
import { useState } from 'react';
import { BREACH_WORDS, JSON_WORDS } from '@/core/formats/breach-words';
import { printMoney } from '@/core/units/money';
import { printCount, printKWh, printShift } from '@/core/units/print';
import { printDate, printTime } from '@/core/units/zoned';
import type { CdrPreview, CdrRow } from '@/server/formats/import-cdrs';
import { CARDS, PhoneHead } from '@/ui/charts/phone-head';
import { ChooseFile, refusedText, useFileWork } from '@/ui/forms/file-work';
import { LeftOut } from '@/ui/forms/left-out';
import { sendFile } from '@/ui/forms/send-file';
import { useSome } from '@/ui/forms/some-at-a-time';
import { NotInFile } from './not-in-file';
import { NotedThere } from './noted-there';
import { undoImport } from './undo-import';

type Taken = CdrPreview & { taken?: number };
const WHY: Readonly<Record<string, string>> = {
  several: 'more than one visit could be it',
  already_paired: 'the visit it could be has another bill of this file',
  hour_off: 'an hour or two off: a local time taken for UTC?',
  site_differs: 'the time and energy fit a visit at another site',
};
const REFUSED: Readonly<Record<string, string>> = {
  ...JSON_WORDS,
  too_many: 'It holds more than 5,000 CDRs: send it in parts.',
  too_many_visits: 'More than 20,000 visits here stand near what it tells: send it in parts, such as a year each.',
};

const HEADS = ['The network says', 'energy', 'amount', 'recorded here'] as const;

/** Chooses a file, shows what would come of it, takes it in and back. */
export function ImportBills() {
  const [file, setFile] = useState<File | null>(null);
  const [seen, setSeen] = useState<Taken | null>(null);
  const [picks, setPicks] = useState<Record<string, string>>({});
  const { busy, said, say, working, reading } = useFileWork('cdrs');

  /** @returns how many bills came in; `null` where the file was refused */
  const send = async (of: File, take = false): Promise<number | null> => {
    const chosen = Object.entries(picks).flatMap(([id, at]) => (at ? [{ id, visitId: at.split('~')[0], n: Number(at.split('~')[1]) }] : []));
    const { ok, body } = await sendFile(`/api/v1/import/cdrs${take ? '?take=yes' : ''}`, of, take ? { picks: chosen } : {});
    if (!ok) {
      setSeen(null);
      say(refusedText(body, REFUSED));
      return null;
    }
    setSeen(body);
    return body.taken ?? 0;
  };
  const takeIn = (of: File) =>
    void working(async () => {
      const taken = await send(of, true);
      if (taken !== null) say(`${printCount(taken, 'bill')} taken in.`);
    }, 'takes in');
  const undo = () =>
    void working(async () => {
      if (!seen) return;
      const { undone, stopped } = await undoImport('cdrs', seen.importId, () => {});
      if (file) await send(file);
      say(stopped ? 'It could not be taken back just now.' : `${printCount(undone, 'bill')} taken back.`);
    }, 'takes back');
  const { some, more } = useSome(seen?.rows ?? [], 'bill');
  const ready = (seen?.rows ?? []).filter((r) => !r.there && r.unkept === null && (r.match.is === 'paired' || (r.match.is === 'asked' && picks[r.id])));
  return (
    <>
      <ChooseFile
        label="The file, JSON"
        accept="application/json,.json"
        busy={busy}
        said={said}
        onChoose={(chosen) => {
          setFile(chosen);
          setPicks({});
          setSeen(null);
          if (chosen) void reading(chosen, async () => void (await send(chosen)));
        }}
      />
      {seen ? (
        <>
          <LeftOut items={seen.breaches.filter((b) => b.refuses).map((b) => ({ pointer: b.pointer, reason: BREACH_WORDS[b.code] }))} unlisted={seen.unlisted} />
          <div className="overflow-x-auto bg-card" role="region" aria-label="Bills of the file" tabIndex={0}>
            <table className={`text-[14px] sm:min-w-[720px] ${CARDS.table}`}>
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
                {some.map((r) => (
                  <Row key={r.id} row={r} pick={picks[r.id] ?? ''} onPick={(at) => setPicks((p) => ({ ...p, [r.id]: at }))} />
                ))}
              </tbody>
            </table>
          </div>
          {more}
          <NotInFile sessions={seen.leftOut} unread={seen.breaches.some((b) => b.refuses)} />
          <div className="mt-4 flex flex-wrap gap-2">
            <button
              type="button"
              className="plate plate-next !min-h-[44px]"
              disabled={busy || ready.length === 0 || !file}
              onClick={() => file && takeIn(file)}
            >
              Take in {printCount(ready.length, 'bill')}
            </button>
            {seen.rows.some((r) => r.there) || (seen.taken ?? 0) > 0 ? (
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

const when = (at: number, zone: string) => `${printDate(at, zone)} ${printTime(at, zone)}`;
const whenOf = ({ at, zone, dayOnly }: { at: number; zone: string; dayOnly: boolean }) => (dayOnly ? printDate(at, zone) : when(at, zone));
function Row({ row: r, pick, onPick }: { row: CdrRow; pick: string; onPick: (at: string) => void }) {
  const { match } = r;
  const zone = r.stands ? r.stands.zone : match.is === 'paired' ? match.where.zone : match.is === 'asked' ? (match.candidates[0]?.zone ?? 'UTC') : 'UTC';
  return (
    <tr className={`border-b border-rule-2 align-top max-sm:grid-cols-2 ${CARDS.row}`}>
      <th scope="row" className={`px-2.5 py-1.5 text-left font-semibold wrap-anywhere ${CARDS.whole}`}>
        {r.site}
        <span className="block text-[12.5px] font-normal text-ink-2">
          {when(r.start, zone)}
          {zone === 'UTC' ? ' UTC' : ''},{' '}
          <span className="break-all">
            {r.evse}, {r.id}
          </span>
        </span>
        {r.said.map((s) => (
          <span key={s} className="block text-[12.5px] font-normal text-fault">
            {s}
          </span>
        ))}
        {r.unkept ? <span className="block text-[12.5px] font-normal text-fault">cannot be kept: {r.unkept}</span> : null}
      </th>
      <td className={`num px-2.5 py-1.5 sm:whitespace-nowrap ${CARDS.cell}`}>
        <PhoneHead>{HEADS[1]}</PhoneHead>
        {printKWh(r.kWh)}
      </td>
      <td className={`num px-2.5 py-1.5 ${CARDS.cell}`}>
        <PhoneHead>{HEADS[2]}</PhoneHead>
        {printMoney(r.amount, r.currency)}
        {r.taxIn ? null : <span className="block font-sans text-[12px] text-ink-2">without tax</span>}
      </td>
      <td className={`px-2.5 py-1.5 ${CARDS.whole}`}>
        <PhoneHead>{HEADS[3]}</PhoneHead>
        {r.stands ? (
          <>
            <a href={`/ledger/${r.stands.visitId}`} className="text-shake underline">
              {whenOf(r.stands)}
            </a>
            <b className="block text-[12.5px] font-semibold">in the ledger</b>
            {r.stands.other ? (
              <span className="block text-[12.5px] text-fault">
                There it says {printMoney(r.stands.other.amount, r.stands.other.currency)}. To take in this one, take that back first.
              </span>
            ) : null}
          </>
        ) : match.is === 'paired' ? (
          <>
            <a href={`/ledger/${match.where.visitId}`} className="text-shake underline">
              {match.where.stall ? `Stall ${match.where.stall}, ` : ''}
              {match.where.dayOnly ? printDate(match.where.at, match.where.zone) : printTime(match.where.at, match.where.zone)}
            </a>
            <span className="block text-[12.5px] text-ink-2">
              {[
                match.offset_s === null ? null : Math.abs(match.offset_s) < 1 ? 'the same time' : `the network’s clock ${printShift(match.offset_s)}`,
                match.kWhDiff === null ? null : Number(match.kWhDiff) === 0 ? 'the same energy' : `${Number(match.kWhDiff) > 0 ? '+' : ''}${match.kWhDiff} kWh`,
                match.stallDiffers ? 'another stall' : null,
              ]
                .filter(Boolean)
                .join(', ')}
            </span>
            <NotedThere noted={r.noted} told={r} />
          </>
        ) : match.is === 'asked' ? (
          <label className="block">
            <span className="block text-[12.5px] text-ink-2">{WHY[match.why] ?? match.why}</span>
            <select className="field !min-h-[44px] w-full" value={pick} onChange={(e) => onPick(e.target.value)} aria-label={`Which visit is ${r.id}?`}>
              <option value="">leave it out</option>
              {match.candidates.map((c) => (
                <option key={`${c.visitId} ${c.n}`} value={`${c.visitId}~${c.n}`}>
                  {[c.site, c.stall && `stall ${c.stall}`, whenOf(c)].filter(Boolean).join(', ')}
                </option>
              ))}
            </select>
          </label>
        ) : (
          <span className="text-ink-2">no visit like it</span>
        )}
      </td>
    </tr>
  );
}
