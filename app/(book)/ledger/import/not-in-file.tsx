import { printMoney } from '@/core/units/money';
import { printCount } from '@/core/units/print';
import { printDate, printTime } from '@/core/units/zoned';
import type { SessionsLeftOut } from '@/server/formats/sessions-left-out';

/** Sessions recorded here, of the time and the networks of a file, that it does not tell: each with what is noted to have been paid for it. @param unread some of the file is not read yet, or cannot be */
export function NotInFile({ sessions: { shown, more }, unread }: { sessions: SessionsLeftOut; unread: boolean }) {
  if (shown.length === 0) return null;
  return (
    <section aria-label="Not in this file" className="mt-5 text-[14px]">
      <h2 className="text-[16px]">Recorded here, not in this file</h2>
      <p className="mb-1 text-[13px] text-ink-2">
        {printCount(shown.length + more, 'session')} of its time at its networks.{unread ? ' What of it is not read yet may tell some of them.' : ''}
      </p>
      <ul className="relative max-h-80 overflow-y-auto" tabIndex={0} aria-label="Sessions">
        {shown.map((s) => (
          <li key={`${s.visitId} ${s.n}`} className="flex flex-wrap justify-between gap-x-4 border-b border-rule-2 py-1">
            <a href={`/ledger/${s.visitId}`} className="inline-block min-h-6 text-shake underline">
              {[s.site, s.stall === null ? null : `stall ${s.stall}`, `${printDate(s.at, s.zone)}${s.dayOnly ? '' : ` ${printTime(s.at, s.zone)}`}`]
                .filter(Boolean)
                .join(', ')}
            </a>
            <span className={s.paid.length > 0 ? 'num text-ink-2' : 'font-semibold'}>
              {s.paid.length > 0 ? `noted: ${s.paid.map((b) => printMoney(b.amount, b.currency)).join(', ')}` : 'no bill noted'}
            </span>
          </li>
        ))}
      </ul>
      {more > 0 ? <p className="mt-1 text-ink-2">{printCount(more, 'later one')} not shown.</p> : null}
    </section>
  );
}
