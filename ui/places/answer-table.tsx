import { limitText } from '@/core/power/answer-words';
import type { StallAnswer } from '@/core/power/compatible-stalls';
import { printKW } from '@/core/units/print';
import { printSeen } from '@/core/units/zoned';
import { CARDS } from '../charts/phone-head';

/** On a phone a line of its own, and none where there is nothing to say. */
const ROW = 'max-sm:w-full max-sm:py-0.5 max-sm:empty:hidden';
const USE = { yes: 'Yes', doubtful: 'Doubtful', no: 'No' } as const;

/** What a car can use at a site: at most how many kW by which plug, and why not the rest. */
export function AnswerTable({
  answers,
  stallName,
  adapterName,
  meansLabel,
}: {
  answers: readonly StallAnswer[];
  stallName: (id: string) => string;
  adapterName: (id: string) => string;
  meansLabel: (id: string) => string;
}) {
  return (
    <div className="overflow-x-auto">
      <table className={`text-[14px] sm:min-w-[560px] ${CARDS.table}`}>
        <thead className={CARDS.head}>
          <tr className="border-b border-rule text-left text-[12.5px] text-ink-2">
            <th className="py-1.5 pr-3 font-semibold">Stall</th>
            <th className="py-1.5 pr-3 font-semibold">Usable</th>
            <th className="py-1.5 pr-3 text-right font-semibold">At most</th>
            <th className="py-1.5 pr-3 font-semibold">By</th>
            <th className="py-1.5 pr-3 font-semibold">Pay with</th>
            <th className="py-1.5 font-semibold">Why not, or what to know</th>
          </tr>
        </thead>
        <tbody className={CARDS.body}>
          {answers.map((a) => (
            <tr key={a.stallId} className="border-b border-rule-2 align-top max-sm:flex max-sm:flex-wrap max-sm:py-1.5">
              <th scope="row" className="num py-1.5 pr-3 text-left font-bold max-sm:py-0.5">
                <span className="font-sans sm:hidden">Stall </span>
                {stallName(a.stallId)}
              </th>
              <td className={`py-1.5 pr-3 font-semibold max-sm:py-0.5 ${a.use === 'no' ? 'text-fault' : ''}`}>{USE[a.use]}</td>
              <td className="num whitespace-nowrap py-1.5 pr-3 text-right max-sm:py-0.5 max-sm:empty:hidden">{a.kW === null ? null : printKW(a.kW)}</td>
              <td className={`py-1.5 pr-3 ${ROW}`}>
                {a.way ? `${a.way.connector}${a.way.adapterId ? ` with ${adapterName(a.way.adapterId)}` : a.way.builtIn ? ' with its own adapter' : ''}` : null}
                {a.by ? <span className="text-[12.5px] text-ink-2 sm:block"> set by {limitText(a.by)}</span> : null}
              </td>
              <td className={`py-1.5 pr-3 ${ROW}`}>{a.means.map(meansLabel).join(', ') || null}</td>
              <td className={`py-1.5 ${ROW}`}>
                {a.reasons.map((r) => r.text).join('; ')}
                {a.asSeen && a.reasons.length > 0 ? <span className="text-ink-2"> (as seen {printSeen(a.asSeen)})</span> : null}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
