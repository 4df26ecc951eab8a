'use client';
import { ARCHIVED } from '@/core/records/record-change';
import { recordDifference } from '@/core/records/record-difference';
import type { MileRecord } from '@/core/records/record-schema';
import type { RecordType } from '@/core/records/record-types';
import { TYPES } from '@/core/records/types/registry';
import { printCount } from '@/core/units/print';
import { printDate, printMonth } from '@/core/units/zoned';
import type { ExtraDiffers } from '@/server/formats/ledger-extras';
import type { Differs, LedgerTold } from '@/server/formats/ledger-in';
import { printValue } from '@/ui/records/difference-sheet';
import type { Names } from '@/ui/records/form-fields';
import { fieldLabel } from '@/ui/records/record-fields';

/** More are counted, not listed. */
const MOST = 200;
const short = (value: unknown, names: Names): string => {
  const text = printValue(value, names);
  return text.length > 120 ? `${text.slice(0, 117)} …` : text;
};

/** Of records that differ, by their ids, the fields of which the file's version is chosen. */
export type Theirs = Readonly<Record<string, readonly string[]>>;

/** What is here and in the file and differs, to choose from, and what is refused. */
export function LedgerDifferences({
  seen,
  theirs,
  onTheirs,
  names,
  zone,
  disabled,
}: {
  seen: { differs: readonly Differs[]; refused: LedgerTold['refused'] };
  theirs: Theirs;
  onTheirs: (theirs: Theirs) => void;
  names: Names;
  /** Of the household: its days. */
  zone: string;
  disabled: boolean;
}) {
  const records = seen.differs.filter((d) => d.kind === 'record');
  const events = seen.differs.filter((d) => d.kind === 'event');
  const others = seen.differs.filter((d) => d.kind !== 'record' && d.kind !== 'event');
  const choose = (id: string, fields: readonly string[]) => {
    const { [id]: _, ...rest } = theirs;
    onTheirs(fields.length > 0 ? { ...rest, [id]: fields } : rest);
  };
  return (
    <>
      {records.length > 0 ? (
        <section aria-label="Records that differ" className="mb-4">
          <h2 className="mb-1 text-[16px]">{printCount(records.length, 'record')} here and in the file that differ</h2>
          <p className="mb-2 text-[13px] text-ink-2">They stay as they are here, but for what you tick.</p>
          <ul className="bg-card text-[14px]">
            {records.slice(0, MOST).map((d) => (
              <DifferingRecord
                key={d.id}
                differs={d}
                chosen={theirs[d.id] ?? []}
                onChoose={(fields) => choose(d.id, fields)}
                names={names}
                disabled={disabled}
              />
            ))}
          </ul>
          {records.length > MOST ? <p className="text-[13px] text-ink-2">and {records.length - MOST} more, which stay as they are here.</p> : null}
        </section>
      ) : null}
      {events.length > 0 ? (
        <section aria-label="Events that differ" className="mb-4">
          <h2 className="mb-1 text-[16px]">{printCount(events.length, 'event')} here and in the file that differ</h2>
          <p className="text-[13px] text-ink-2">An event is never changed: those that are here stay. What is wrong with one is corrected on its visit.</p>
          <ul className="text-[14px]">
            {events.slice(0, MOST).map((d) => (
              <li key={d.id}>
                <a href={`/ledger/${String(d.file)}`} className="inline-block min-h-6 text-shake underline">
                  {d.what.replaceAll('_', ' ')}
                </a>
              </li>
            ))}
          </ul>
        </section>
      ) : null}
      {others.length > 0 ? (
        <section aria-label="Comparisons and months that differ" className="mb-4">
          <h2 className="mb-1 text-[16px]">Comparisons and closed months here and in the file that differ</h2>
          <p className="mb-2 text-[13px] text-ink-2">They stay as they are here, but for what you tick. A month that is closed stays as it was closed.</p>
          <ul className="bg-card text-[14px]">
            {others.slice(0, MOST).map((d) => (
              <DifferingOther
                key={d.id}
                differs={d}
                chosen={Object.hasOwn(theirs, d.id)}
                onChoose={(is) => choose(d.id, is ? [WHOLE] : [])}
                zone={zone}
                disabled={disabled}
              />
            ))}
          </ul>
          {others.length > MOST ? <p className="text-[13px] text-ink-2">and {others.length - MOST} more, which stay as they are here.</p> : null}
        </section>
      ) : null}
      {seen.refused.length > 0 ? (
        <section aria-label="What is refused" className="mb-4">
          <h2 className="mb-1 text-[16px]">What is refused</h2>
          <ul className="relative max-h-72 overflow-y-auto text-[14px]" tabIndex={0} aria-label="Reasons one by one">
            {seen.refused.slice(0, MOST).map((r, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: what is refused may have no id at all
              <li key={i} className="mb-1 break-words border-l-4 border-fault bg-fault-card px-3 py-1">
                {r.kind} {r.id}: {r.path} {r.reason}
              </li>
            ))}
          </ul>
          {seen.refused.length > MOST ? <p className="text-[13px] text-ink-2">and {seen.refused.length - MOST} more.</p> : null}
        </section>
      ) : null}
    </>
  );
}

/** One record that differs: the file's version of all of it, or of single fields. */
function DifferingRecord({
  differs: { id, here, file },
  chosen,
  onChoose,
  names,
  disabled,
}: {
  differs: Extract<Differs, { kind: 'record' }>;
  chosen: readonly string[];
  onChoose: (fields: readonly string[]) => void;
  names: Names;
  disabled: boolean;
}) {
  const rows = differencesOf(here, file, names);
  const all = rows.length > 0 && rows.every((r) => chosen.includes(r.field));
  const heading = `${id}-of`;
  return (
    <li className="border-b border-rule-2 px-3 py-2">
      <label className="flex min-h-[44px] items-center gap-2">
        <input
          type="checkbox"
          className="size-5 shrink-0 accent-ink"
          disabled={disabled}
          checked={all}
          ref={(box) => {
            if (box) box.indeterminate = !all && chosen.length > 0;
          }}
          onChange={(e) => onChoose(e.target.checked ? rows.map((r) => r.field) : [])}
        />
        <b id={heading} className="min-w-0 break-words font-semibold">
          {`${TYPES[here.type].one} ${nameHere(here)}`}
        </b>
        <span className="sr-only">: the file’s version</span>
      </label>
      <ul aria-labelledby={heading} className="pl-7 text-[13px]">
        {rows.map((r) => (
          <li key={r.field}>
            {rows.length === 1 ? (
              <p className="mb-1 break-words">
                <b className="font-semibold">{r.label}</b>
                {r.words}
              </p>
            ) : (
              <label className="flex min-h-[44px] items-center gap-2">
                <input
                  type="checkbox"
                  className="size-5 shrink-0 accent-ink"
                  disabled={disabled}
                  checked={chosen.includes(r.field)}
                  onChange={(e) => onChoose(e.target.checked ? [...chosen, r.field] : chosen.filter((f) => f !== r.field))}
                />
                <span className="min-w-0 break-words">
                  <b className="font-semibold">{r.label}</b>
                  {r.words}
                </span>
              </label>
            )}
          </li>
        ))}
      </ul>
    </li>
  );
}

/** What is taken whole or not at all. */
const WHOLE = 'whole';
/** A pair on watch, a saved comparison or a closed month that differs. */
function DifferingOther({
  differs: d,
  chosen,
  onChoose,
  zone,
  disabled,
}: {
  differs: ExtraDiffers;
  chosen: boolean;
  onChoose: (is: boolean) => void;
  zone: string;
  disabled: boolean;
}) {
  const words = wordsOfOther(d, zone);
  if (d.kind === 'closed')
    return (
      <li className="border-b border-rule-2 px-3 py-2">
        <b className="font-semibold">{words.name}</b>: {words.said}
      </li>
    );
  return (
    <li className="border-b border-rule-2 px-3 py-2">
      <label className="flex min-h-[44px] items-center gap-2">
        <input type="checkbox" className="size-5 shrink-0 accent-ink" disabled={disabled} checked={chosen} onChange={(e) => onChoose(e.target.checked)} />
        <span className="min-w-0 break-words">
          <b className="font-semibold">{words.name}</b>: {words.said}
          <span className="sr-only">: the file’s version</span>
        </span>
      </label>
      {d.kind === 'view' ? (
        <p className="pl-7 text-[13px]">
          {[
            ['As it is here', d.here.address],
            ['As in the file', d.file.address],
          ].map(([name, address]) => (
            <a key={name} href={`/compare${address}`} target="_blank" rel="noreferrer" className="mr-4 inline-block min-h-6 text-shake underline">
              {name}
            </a>
          ))}
        </p>
      ) : null}
    </li>
  );
}
function wordsOfOther(d: ExtraDiffers, zone: string): { name: string; said: string } {
  if (d.kind === 'closed') {
    const [here, file] = [d.here.closedAt, d.file.closedAt].map((at) => printDate(at, zone));
    return { name: printMonth(d.what), said: `closed here on ${here}, in the file on ${file}; ${printCount(d.file.differ, 'visit')} otherwise` };
  }
  if (d.kind === 'watch') {
    const [here, file] = [d.here, d.file].map(({ endedAt }) => (endedAt === null ? 'still on watch' : `ended on ${printDate(endedAt, zone)}`));
    return { name: d.what, said: `here ${here}; in the file ${file}` };
  }
  return { name: `Comparison ${d.here.name}`, said: d.here.name === d.file.name ? 'asks something else in the file' : `in the file it is “${d.file.name}”` };
}

const nameHere = (r: MileRecord): string => (TYPES[r.type] as { name: (fields: never) => string }).name(r.fields as never);
/** Each field in which a record here and the file's differ, in words. */
function differencesOf(here: MileRecord, file: { fields: Record<string, unknown>; archived?: boolean }, names: Names) {
  const fields = recordDifference(here.fields as Record<string, unknown>, file.fields).map((f) => ({
    field: f.field,
    label: `${fieldLabel(here.type as RecordType, f.field)}: `,
    words: `here ${short(f.mine, names)}; in the file ${short(f.theirs, names)}`,
  }));
  if (here.archived === (file.archived ?? false)) return fields;
  return [...fields, { field: ARCHIVED, label: '', words: here.archived ? 'put away here, in use in the file' : 'in use here, put away in the file' }];
}
