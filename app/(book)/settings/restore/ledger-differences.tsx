'use client';
import { ARCHIVED } from '@/core/records/record-change';
import { recordDifference } from '@/core/records/record-difference';
import type { RecordType } from '@/core/records/record-types';
import { TYPES } from '@/core/records/types/registry';
import { printCount } from '@/core/units/print';
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
  disabled,
}: {
  seen: { differs: readonly Differs[]; refused: LedgerTold['refused'] };
  theirs: Theirs;
  onTheirs: (theirs: Theirs) => void;
  names: Names;
  disabled: boolean;
}) {
  const records = seen.differs.filter((d) => d.kind === 'record');
  const events = seen.differs.filter((d) => d.kind === 'event');
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
                onChoose={(fields) => {
                  const { [d.id]: _, ...others } = theirs;
                  onTheirs(fields.length > 0 ? { ...others, [d.id]: fields } : others);
                }}
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
      {seen.refused.length > 0 ? (
        <section aria-label="What is refused" className="mb-4">
          <h2 className="mb-1 text-[16px]">What is refused</h2>
          <ul className="max-h-72 overflow-y-auto text-[14px]" tabIndex={0} aria-label="Reasons one by one">
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
  differs: { id, what, here, file },
  chosen,
  onChoose,
  names,
  disabled,
}: {
  differs: Differs;
  chosen: readonly string[];
  onChoose: (fields: readonly string[]) => void;
  names: Names;
  disabled: boolean;
}) {
  const theirs = file as { fields: Record<string, unknown>; archived?: boolean };
  const rows = here ? differencesOf(here, theirs, names) : [];
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
          {here ? `${TYPES[here.type].one} ${nameHere(here)}` : what}
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

type Here = NonNullable<Differs['here']>;
const nameHere = (r: Here): string => (TYPES[r.type] as { name: (fields: never) => string }).name(r.fields as never);
/** Each field in which a record here and the file's differ, in words. */
function differencesOf(here: Here, file: { fields: Record<string, unknown>; archived?: boolean }, names: Names) {
  const fields = recordDifference(here.fields as Record<string, unknown>, file.fields).map((f) => ({
    field: f.field,
    label: `${fieldLabel(here.type as RecordType, f.field)}: `,
    words: `here ${short(f.mine, names)}; in the file ${short(f.theirs, names)}`,
  }));
  if (here.archived === (file.archived ?? false)) return fields;
  return [...fields, { field: ARCHIVED, label: '', words: here.archived ? 'put away here, in use in the file' : 'in use here, put away in the file' }];
}
