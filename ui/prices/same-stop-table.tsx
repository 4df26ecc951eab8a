import Link from 'next/link';
import { PARTS, type Part, perBatteryKWh, type StopAt } from '@/core/tariff/same-stop';
import { printMoney, printPerKWh } from '@/core/units/money';
import { printCount, printKWh } from '@/core/units/print';
import { printSeen } from '@/core/units/zoned';

export type StopRow = StopAt & { name: string; network: string; away: string | null };

/** Energy is paint, minutes are blocks, fees lean: told apart by pattern and word, not by colour alone. */
const LOOK: Readonly<Record<Part, { fill: string; word: string; ink: string }>> = {
  energy: { fill: 'fill-paint', word: 'energy', ink: 'fill-on-paint' },
  minutes: { fill: 'fill-[var(--shake-on)]', word: 'minutes', ink: 'fill-on-paint' },
  start: { fill: 'fill-lane', word: 'start', ink: 'fill-on-paint' },
  idle: { fill: 'fill-[url(#leaning-idle)]', word: 'idle', ink: 'fill-white' },
  overstay: { fill: 'fill-[url(#leaning-overstay)]', word: 'overstay', ink: 'fill-white' },
  rest: { fill: 'fill-[var(--asphalt-2)]', word: 'rest', ink: 'fill-line' },
};
const [WIDE, HIGH] = [360, 22] as const;
/** Narrower than this a word does not fit. */
const WORD = 6.6;

function Bar({ parts, most, of, currency }: { parts: readonly [Part, number][]; most: number; of: string; currency: string }) {
  let x = 0;
  const said = parts.map(([part, amount]) => `${LOOK[part].word} ${printMoney(amount.toFixed(6), currency)}`).join(', ');
  return (
    <svg viewBox={`0 0 ${WIDE} ${HIGH}`} className="h-auto w-full" role="img" aria-label={`${of}: ${said}`}>
      <rect width={WIDE} height={HIGH} className="fill-asphalt" />
      {PARTS.flatMap((part) => {
        const amount = parts.find(([p]) => p === part)?.[1] ?? 0;
        if (amount <= 0) return [];
        const width = Math.max(2, (WIDE * amount) / most);
        const at = x;
        x += width;
        const { fill, word, ink } = LOOK[part];
        return [
          <g key={part}>
            <rect x={at} y={2} width={width} height={HIGH - 4} className={fill} />
            {width > word.length * WORD ? (
              <text x={at + 5} y={16} className={`text-[10px] font-bold ${ink}`}>
                {word}
              </text>
            ) : null}
          </g>,
        ];
      })}
    </svg>
  );
}

/** By how much the stop became dearer or cheaper with this price. */
function changedWords(cost: StopRow['guest'], currency: string): string {
  const more = Number(cost?.total ?? 0) - Number(cost?.before ?? 0);
  if (Math.abs(more) < 0.005) return 'as before';
  return `${printMoney(Math.abs(more).toFixed(6), currency)} ${more > 0 ? 'more' : 'less'} than before`;
}

/** The patterns of fees, once a page. */
function Patterns() {
  const leaning = (id: string, ground: string, line: string) => (
    <pattern id={id} width={8} height={8} patternUnits="userSpaceOnUse" patternTransform="rotate(35)">
      <rect width={8} height={8} className={ground} />
      <rect width={3} height={8} className={line} />
    </pattern>
  );
  return (
    <svg width={0} height={0} aria-hidden="true" className="absolute">
      <defs>
        {leaning('leaning-idle', 'fill-[#4b3178]', 'fill-[#7656a8]')}
        {leaning('leaning-overstay', 'fill-[#6d1807]', 'fill-[#b52a10]')}
      </defs>
    </svg>
  );
}

/** Rows that anybody reads; the CSV has all. */
const LISTED = 200;
/** One stop priced at every site, the cheapest first, what it is made of drawn to one scale. */
export function SameStopTable({ rows, currency }: { rows: readonly StopRow[]; currency: string }) {
  const priced = rows.filter((r) => r.guest || r.held);
  const unpriced = rows.filter((r) => !r.guest && !r.held);
  const most = Math.max(0.01, ...priced.map((r) => Number((r.guest ?? r.held)?.total ?? 0)));
  const plans = rows.some((r) => r.held);
  return (
    <>
      <Patterns />
      {priced.length > 0 ? (
        <div className="overflow-x-auto" role="region" aria-label="One stop at every site" tabIndex={0}>
          <table className="w-full border-t-2 border-ink bg-card text-[14px] sm:min-w-[640px]">
            <thead>
              <tr className="border-b border-ink text-left text-[12px] font-semibold text-ink-2">
                <th scope="col" className="px-2.5 py-1.5 font-semibold">
                  Site
                </th>
                <th scope="col" className="px-2.5 py-1.5 font-semibold max-sm:hidden">
                  what it is made of
                </th>
                <th scope="col" className="px-2.5 py-1.5 text-right font-semibold">
                  guest
                </th>
                {plans ? (
                  <th scope="col" className="px-2.5 py-1.5 text-right font-semibold">
                    with your plans
                  </th>
                ) : null}
                <th scope="col" className="px-2.5 py-1.5 text-right font-semibold">
                  price from
                </th>
              </tr>
            </thead>
            <tbody>
              {priced.slice(0, LISTED).map((r) => {
                const cost = r.guest ?? r.held;
                const since = (r.held ?? r.guest)?.since ?? '';
                const inBattery = perBatteryKWh(r);
                return (
                  <tr key={r.siteId} className="border-b border-rule-2">
                    <th scope="row" className="min-w-[110px] sm:min-w-[150px] px-2.5 py-2 text-left font-normal wrap-anywhere">
                      <Link href={`/places/${r.siteId}/prices`} className="inline-block min-h-6 font-bold hover:underline">
                        {r.name}
                      </Link>
                      <span className="block text-[12.5px] text-ink-2">
                        {[
                          r.network,
                          r.away,
                          r.minutes ? `${printKWh(r.minutes.kWh.toFixed(3))} in ${Math.round(r.minutes.minutes)} min` : null,
                          inBattery === null ? null : `${printPerKWh(inBattery.toFixed(6), currency)} a kWh in the battery`,
                        ]
                          .filter(Boolean)
                          .join(', ')}
                      </span>
                    </th>
                    <td className="w-[40%] px-2.5 py-2 max-sm:hidden">
                      {cost ? <Bar parts={cost.parts} most={most} of={r.name} currency={currency} /> : null}
                    </td>
                    <td className="num px-2.5 py-2 text-right text-[15px]">{r.guest ? printMoney(r.guest.total, currency) : '–'}</td>
                    {plans ? (
                      <td className="num px-2.5 py-2 text-right text-[15px]">
                        {r.held ? (
                          <>
                            {printMoney(r.held.total, currency)}
                            <span className="block font-sans text-[12px] text-ink-2 wrap-anywhere sm:min-w-[90px]">{r.held.name}</span>
                          </>
                        ) : (
                          <span className="text-ink-2">{r.guest ? printMoney(r.guest.total, currency) : '–'}</span>
                        )}
                      </td>
                    ) : null}
                    <td className="num px-2.5 py-2 text-right text-[13px] text-ink-2">
                      {printSeen(since)} {since.slice(0, 4)}
                      {(r.held ?? r.guest)?.before ? <span className="block font-sans text-[12px]">{changedWords(r.held ?? r.guest, currency)}</span> : null}
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        </div>
      ) : null}
      {priced.length > LISTED ? (
        <p className="mt-2 text-[13px] text-ink-2">{printCount(priced.length - LISTED, 'more site')} where it costs as much or more: say within how many km.</p>
      ) : null}
      {unpriced.length > 0 ? (
        <p className="mt-2 text-[13px] text-ink-2">
          Not priced:{' '}
          {unpriced.slice(0, LISTED).map((r, i) => (
            <span key={r.siteId}>
              {i > 0 ? ', ' : ''}
              <Link href={`/places/${r.siteId}/prices`} className="underline">
                {r.name}
              </Link>{' '}
              ({r.why})
            </span>
          ))}
          {unpriced.length > LISTED ? `, and ${unpriced.length - LISTED} more` : ''}.
        </p>
      ) : null}
    </>
  );
}
