import { documentRows } from '@/core/formats/place-document';
import type { RecordFields } from '@/core/records/record-schema';
import { printSeen } from '@/core/units/zoned';

/** Rows that are shown; the export has all of them. */
const SHOWN = 200;

/** What the file that a site came from or was added to by says of it, member by member, as it stood there. */
export function FromFile({ from }: { from: RecordFields<'site'>['fromFile'] }) {
  if (!from) return null;
  const rows = documentRows(from.document);
  return (
    <details className="mt-6 text-[14px]">
      <summary className="min-h-6 cursor-pointer font-semibold text-shake underline">
        What its file says, {from.format}, taken in {printSeen(from.day)} {from.day.slice(0, 4)}
      </summary>
      <p className="mb-1 mt-1 max-w-[760px] text-[13px] text-ink-2">
        As it stood there; nothing on this page is worked out from it. Numbers of cards and contracts are not kept.
      </p>
      <dl className="grid gap-x-6 sm:grid-cols-2">
        {rows.slice(0, SHOWN).map((r) => (
          <div key={r.at} className="flex min-w-0 items-baseline justify-between gap-4 border-b border-rule-2 py-1 text-[13px]">
            <dt className="min-w-[45%] break-words text-ink-2">{r.at}</dt>
            <dd className="min-w-0 break-words text-right">{r.value}</dd>
          </div>
        ))}
      </dl>
      {rows.length > SHOWN ? <p className="mt-1 text-[13px] text-ink-2">{rows.length - SHOWN} more are in what goes out.</p> : null}
    </details>
  );
}
