'use client';
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

/** What is here and in the file and differs, to choose from, and what is refused. */
export function LedgerDifferences({
  seen,
  theirs,
  onTheirs,
  names,
  disabled,
}: {
  seen: { differs: readonly Differs[]; refused: LedgerTold['refused'] };
  theirs: readonly string[];
  onTheirs: (ids: readonly string[]) => void;
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
          <p className="mb-2 text-[13px] text-ink-2">They stay as they are here, but for those of which you tick the file’s version.</p>
          <ul className="bg-card text-[14px]">
            {records.slice(0, MOST).map((d) => (
              <li key={d.id} className="border-b border-rule-2 px-3 py-2">
                <label className="flex min-h-[44px] items-center gap-2">
                  <input
                    type="checkbox"
                    className="size-5"
                    disabled={disabled}
                    checked={theirs.includes(d.id)}
                    onChange={(e) => onTheirs(e.target.checked ? [...theirs, d.id] : theirs.filter((id) => id !== d.id))}
                  />
                  <b className="font-semibold">{d.here ? `${TYPES[d.here.type].one} ${nameHere(d.here)}` : d.what}</b>
                  <span className="sr-only">: the file’s version</span>
                </label>
                <Fields differs={d} names={names} />
              </li>
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

/** What a record is called here. */
const nameHere = (r: NonNullable<Differs['here']>): string => (TYPES[r.type] as { name: (fields: never) => string }).name(r.fields as never);

function Fields({ differs, names }: { differs: Differs; names: Names }) {
  const file = differs.file as { fields: Record<string, unknown>; archived?: boolean };
  const here = differs.here;
  if (!here) return null;
  const fields = recordDifference(here.fields as Record<string, unknown>, file.fields);
  return (
    <dl className="pl-7 text-[13px]">
      {fields.map((f) => (
        <div key={f.field} className="mb-1 break-words">
          <dt className="inline font-semibold">{fieldLabel(here.type as RecordType, f.field)}: </dt>
          <dd className="inline">
            here {short(f.mine, names)}; in the file {short(f.theirs, names)}
          </dd>
        </div>
      ))}
      {here.archived !== (file.archived ?? false) ? (
        <div>{here.archived ? 'put away here, in use in the file' : 'in use here, put away in the file'}</div>
      ) : null}
    </dl>
  );
}
