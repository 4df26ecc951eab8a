import Link from 'next/link';
import type { PowerGroup } from '@/core/compare/power-groups';
import { ratioText } from '@/core/power/power-words';
import { NOT_READ, printCount, printKW } from '@/core/units/print';
import { CARDS, PhoneHead } from '../charts/phone-head';

type Row = PowerGroup & { name: string; href: string | null };
const [WIDE, HIGH] = [200, 22] as const;
/** The scale's end: word kept, and a little above it. */
const MOST = 1.2;
const x = (ratio: number) => (Math.min(MOST, Math.max(0, ratio)) / MOST) * WIDE;

/** Where the sessions lie: the middle's limits as a bar, all together as a dot, the word itself as a line. */
function Drawn({ row }: { row: Row }) {
  if (row.keepsItsWord === null) return null;
  const [lo, hi] = row.limits ?? [row.least ?? row.keepsItsWord, row.keepsItsWord];
  return (
    <svg viewBox={`0 0 ${WIDE} ${HIGH}`} className="h-[22px] w-[200px]" role="img" aria-label={`${row.name}: ${ratioText(row.keepsItsWord)} of 1`}>
      <line x1={x(1)} x2={x(1)} y1="1" y2={HIGH - 1} stroke="var(--ink)" strokeWidth="1.5" />
      <line x1="0" x2={WIDE} y1={HIGH / 2} y2={HIGH / 2} stroke="var(--rule)" />
      {row.limits ? <rect x={x(lo)} width={Math.max(2, x(hi) - x(lo))} y={HIGH / 2 - 4} height="8" fill="var(--lane)" /> : null}
      <circle cx={x(row.keepsItsWord)} cy={HIGH / 2} r="5" fill="var(--paint)" stroke="var(--ink)" strokeWidth="1.5" />
    </svg>
  );
}

const cell = `num px-2 py-1.5 text-right align-top ${CARDS.cell}`;
const head = 'px-2 py-1.5 text-right font-semibold';
/** Sessions by group, those that charged longest first. */
export function PowerGroups({ rows, one }: { rows: readonly Row[]; one: string }) {
  return (
    <div className="overflow-x-auto bg-card" role="region" aria-label={`Power by ${one}`} tabIndex={0}>
      <table className={`text-[14px] sm:min-w-[640px] ${CARDS.table}`}>
        <thead className={CARDS.head}>
          <tr className="border-b-2 border-t-2 border-ink text-[12.5px] text-ink-2">
            <th scope="col" className="px-3 py-1.5 text-left font-semibold first-letter:uppercase">
              {one}
            </th>
            <th scope="col" className="px-2 py-1.5 text-left font-semibold">
              Keeps its word
            </th>
            <th scope="col" className={head}>
              all together
            </th>
            <th scope="col" className={head}>
              middle, 95 %
            </th>
            <th scope="col" className={head}>
              pace
            </th>
            <th scope="col" className={head}>
              average
            </th>
            <th scope="col" className={head}>
              peak
            </th>
          </tr>
        </thead>
        <tbody className={CARDS.body}>
          {rows.map((r) => (
            <tr key={r.key} className={`border-b border-rule-2 max-sm:grid-cols-4 ${CARDS.row}`}>
              <th scope="row" className={`px-3 py-1.5 text-left font-semibold max-sm:px-2 ${CARDS.whole}`}>
                {r.href ? (
                  <Link href={r.href} className="text-shake underline">
                    {r.name}
                  </Link>
                ) : (
                  r.name
                )}
                <span className="block text-[12px] font-normal text-ink-2">
                  {printCount(r.sessions, 'session')}
                  {r.judged < r.sessions ? `, ${r.judged} judged` : ''}
                </span>
              </th>
              <td className="px-2 py-1.5 max-sm:col-span-3 max-sm:self-end max-sm:py-0.5">
                <Drawn row={r} />
              </td>
              <td className={cell}>
                <PhoneHead>keeps its word</PhoneHead>
                {r.keepsItsWord === null ? <span className="font-sans text-ink-2">not told</span> : r.keepsItsWord.toFixed(2)}
              </td>
              <td className={cell}>
                <PhoneHead>middle</PhoneHead>
                {r.median === null ? '\u2003' : r.median.toFixed(2)}
                <span className="block font-sans text-[12px] text-ink-2">
                  {r.limits ? `${r.limits[0].toFixed(2)} to ${r.limits[1].toFixed(2)}` : r.judged > 0 ? 'fewer than six' : ''}
                </span>
              </td>
              <td className={cell}>
                <PhoneHead>pace</PhoneHead>
                {r.pace === null ? '\u2003' : r.pace.toFixed(2)}
              </td>
              <td className={cell}>
                <PhoneHead>average</PhoneHead>
                {r.mean_kW === null ? <span className="font-sans text-ink-2">{NOT_READ}</span> : printKW(r.mean_kW)}
              </td>
              <td className={cell}>
                <PhoneHead>peak</PhoneHead>
                {r.peak_kW === null ? '\u2003' : printKW(r.peak_kW)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
