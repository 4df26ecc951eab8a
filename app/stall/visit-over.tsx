import { printMoney, printPerKWh } from '@/core/units/money';
import { NOT_READ, printDuration, printKW } from '@/core/units/print';
import type { Visit } from '@/core/visit/derive';
import { energyText } from '@/core/visit/energy-text';
import type { Timing } from '@/core/visit/timing';
import { visitCode } from '@/core/visit/visit-code';

const time = (t: Timing | undefined) =>
  t?.known ? `${t.bound === 'at_most' ? '≤ ' : t.bound === 'at_least' ? '≥ ' : ''}${printDuration(t.s)}` : (t?.why ?? NOT_READ);

/** After pulling out: what the visit came to, and the way to its page. */
export function VisitOver({
  visit,
  noHelpline,
  unnamed,
  onName,
  onLeave,
  onRate,
  onHelpline,
}: {
  visit: Visit;
  /** Whose number was missing when it was needed. */
  noHelpline: string | null;
  /** It was at a place that has no name yet. */
  unnamed: boolean;
  onName: (timeStamp: number) => void;
  onLeave: () => void;
  onRate: (timeStamp: number) => void;
  onHelpline: (timeStamp: number) => void;
}) {
  const session = visit.attempts.find((a) => a.proof);
  const rows: [string, string][] = [
    ['Handshake', time(session?.times.handshake)],
    ['Charging', time(visit.times.charging)],
    ['Delivered', visit.delivered.known ? energyText(visit.delivered) : visit.delivered.why],
    ['Average power', visit.average.known ? printKW(visit.average.value) : visit.average.why],
    ['Lost to faults', time(visit.times.lost)],
    ['Paid', visit.paid.known ? printMoney(visit.paid.value.amount, visit.paid.value.currency) : 'no bill yet'],
    ['Price per kWh with fees', visit.allIn.known ? printPerKWh(visit.allIn.value.perKWh, visit.allIn.value.currency) : visit.allIn.why],
  ];
  return (
    <section aria-label="The visit" className="border-b-2 border-ink bg-card px-4 py-3">
      <h2 className="text-lg">
        The visit is over <span className="num text-[13px] font-medium text-ink-2">{visitCode(visit.id)}</span>
      </h2>
      <dl className="mt-2 grid grid-cols-2 gap-x-4">
        {rows.map(([label, value]) => (
          <div key={label} className="flex items-baseline justify-between gap-2 border-b border-rule-2 py-1">
            <dt className="text-[13px] text-ink-2">{label}</dt>
            <dd className={/\d/.test(value) ? 'num text-[15px] font-semibold' : 'text-right text-[12.5px] text-ink-2'}>{value}</dd>
          </div>
        ))}
      </dl>
      {unnamed ? (
        <div className="mt-3 border-l-4 border-paint bg-picked px-3 py-2">
          <p className="text-[15px]">This place has no name yet: until then the visit stands in no comparison.</p>
          <button type="button" className="plate mt-2 !min-h-[44px]" onClick={(e) => onName(e.timeStamp)}>
            Name it
          </button>
        </div>
      ) : null}
      {noHelpline ? (
        <div className="mt-3 border-l-4 border-fault bg-fault-card px-3 py-2">
          <p className="text-[15px]">The helpline of {noHelpline} was missing when it was needed. It stands in the app, or on a post that is safe.</p>
          <button type="button" className="plate mt-2 !min-h-[44px]" onClick={(e) => onHelpline(e.timeStamp)}>
            Note the number
          </button>
        </div>
      ) : null}
      <div className="mt-3 flex flex-wrap gap-2">
        <a className="plate !min-h-[44px]" href={`/ledger/${visit.id}`}>
          Open its page
        </a>
        <button type="button" className="plate !min-h-[44px]" onClick={(e) => onRate(e.timeStamp)}>
          Rate it
        </button>
        <button type="button" className="plate !min-h-[44px]" onClick={onLeave}>
          Leave the visit
        </button>
      </div>
    </section>
  );
}
