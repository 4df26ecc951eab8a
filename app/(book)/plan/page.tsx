import type { Metadata } from 'next';
import type { ReactNode } from 'react';
import { heldText } from '@/core/power/what-held-it-back';
import { printDistance, printKW, printKWh } from '@/core/units/print';
import { noLevel, printLevel, typedLevel, wrongLevels } from '@/core/units/typed-level';
import { signedInHere } from '@/server/http/signed-in-here';
import { plannedStop } from '@/server/power/plan-stop';
import { CARDS, PhoneHead } from '@/ui/charts/phone-head';
import { one, type Query } from '../../query';

export const metadata: Metadata = { title: 'What if' };

const minutes = (m: number | null) => (m === null ? 'never' : `${m.toFixed(m < 10 ? 1 : 0)} min`);

/** A stop thought of beforehand, against what else could be done. */
export default async function PlanPage({ searchParams }: { searchParams: Promise<Query> }) {
  const who = await signedInHere();
  const query = await searchParams;
  const [from, to, car, stall, price] = [
    typedLevel(one(query, 'from')),
    typedLevel(one(query, 'to')),
    one(query, 'car'),
    one(query, 'stall'),
    one(query, 'price'),
  ];
  const page = await plannedStop(who, {
    ...(car ? { car } : {}),
    ...(stall ? { stall } : {}),
    ...(typeof from === 'number' ? { from } : {}),
    ...(typeof to === 'number' ? { to } : {}),
    paired: one(query, 'paired') === 'yes',
    cold: one(query, 'cold') === 'yes',
    ...(price ? { price } : {}),
  });
  const { idea } = page;
  const level = (pct: number) => printLevel(pct, [idea.from, idea.to]);
  const wrong = wrongLevels({ from, to });
  // What was not understood is not answered with something else.
  const rows = wrong.length > 0 ? [] : page.rows;
  const words = wrong.length > 0 && page.rows.length > 0 ? [] : page.words;
  const typed = (name: 'from' | 'to') => (wrong.includes(name) ? one(query, name) : String(idea[name]));
  const label = 'flex flex-col text-[13px] font-semibold';
  const first = rows[0];
  const best = [...rows]
    .filter((r) => r.minutes !== null && r.elsewhere === null && r.to <= idea.to)
    .sort((a, b) => (a.minutes as number) + a.besides_min - (b.minutes as number) - b.besides_min)[0];
  return (
    <div className="mx-auto w-full max-w-[1280px] px-4 py-4 sm:px-6">
      <h1 className="mb-2.5 text-[22px]">What if</h1>
      <form action="/plan" className="mb-3 flex flex-wrap items-end gap-2">
        <label className={label}>
          Car
          <select name="car" defaultValue={idea.car ?? ''} className="field mt-0.5 !w-[160px]">
            {page.cars.map((c) => (
              <option key={c.id} value={c.id}>
                {c.name}
              </option>
            ))}
          </select>
        </label>
        <label className={label}>
          from, %
          <input name="from" inputMode="decimal" defaultValue={typed('from')} aria-invalid={wrong.includes('from')} className="field mt-0.5 !w-[76px]" />
        </label>
        <label className={label}>
          to, %
          <input name="to" inputMode="decimal" defaultValue={typed('to')} aria-invalid={wrong.includes('to')} className="field mt-0.5 !w-[76px]" />
        </label>
        <label className={label}>
          at stall
          <select name="stall" defaultValue={idea.stall ?? ''} className="field mt-0.5 !w-[220px]">
            {page.stalls.map((s) => (
              <option key={s.id} value={s.id}>
                {s.name}
              </option>
            ))}
          </select>
        </label>
        {page.prices.length > 0 ? (
          <label className={label}>
            paid
            <select name="price" defaultValue={idea.price ?? ''} className="field mt-0.5 !w-[180px]">
              <option value="">as a guest</option>
              {page.prices.map((p) => (
                <option key={p.id} value={p.id}>
                  {p.name}
                </option>
              ))}
            </select>
          </label>
        ) : null}
        <label className="flex min-h-[44px] items-center gap-2 text-[14px]">
          <input type="checkbox" name="paired" value="yes" defaultChecked={idea.paired} className="size-5" /> a neighbour charges too
        </label>
        <label className="flex min-h-[44px] items-center gap-2 text-[14px]">
          <input type="checkbox" name="cold" value="yes" defaultChecked={idea.cold} className="size-5" /> cold battery
        </label>
        <button type="submit" className="plate !min-h-[44px]">
          Work it out
        </button>
      </form>
      {wrong.length > 0 ? (
        <p role="alert" className="mb-3 text-sm font-semibold text-fault">
          {noLevel(wrong)}
        </p>
      ) : null}
      {first ? (
        <p className="mb-3 border-l-[6px] border-paint bg-card px-4 py-2 text-[16px] leading-snug">
          {first.minutes === null
            ? 'By what is on file it never gets there.'
            : `${level(idea.from)} to ${level(idea.to)} % takes about ${minutes(first.minutes)}, at ${printKW(first.mean_kW ?? 0)} on average${
                best && best !== first && (best.minutes as number) + best.besides_min < first.minutes - 1
                  ? `; ${best.name.toLowerCase()} of the same energy ${minutes((best.minutes as number) + best.besides_min)} in all, the handshake counted`
                  : ''
              }.`}
        </p>
      ) : null}
      {rows.length > 0 ? (
        <div className="overflow-x-auto bg-card" role="region" aria-label="This stop and others" tabIndex={0}>
          <table className={`text-[14px] sm:min-w-[640px] ${CARDS.table}`}>
            <thead className={CARDS.head}>
              <tr className="border-b-2 border-t-2 border-ink text-right text-[12.5px] text-ink-2">
                <th scope="col" className="px-3 py-1.5 text-left font-semibold">
                  Instead
                </th>
                {['minutes', 'average', 'metered', 'costs', 'range'].map((h) => (
                  <th key={h} scope="col" className="px-2 py-1.5 font-semibold">
                    {h}
                  </th>
                ))}
                <th scope="col" className="px-2 py-1.5 text-left font-semibold">
                  held back by
                </th>
              </tr>
            </thead>
            <tbody className={CARDS.body}>
              {rows.map((r) => (
                <tr key={r.name} className={`border-b border-rule-2 text-right align-top max-sm:grid-cols-3 ${CARDS.row}`}>
                  <th scope="row" className={`px-3 py-1.5 text-left font-semibold ${CARDS.whole}`}>
                    {r.name}
                    <span className="block text-[12px] font-normal text-ink-2">
                      {r.stops > 1
                        ? `each ${level(r.from)} to ${level(r.to)} %, and ${r.besides_min.toFixed(1)} min of handshake`
                        : `${level(r.from)} to ${level(r.to)} %`}
                    </span>
                  </th>
                  <Figure head="minutes">{minutes(r.minutes)}</Figure>
                  <Figure head="average">{r.mean_kW === null ? '\u2003' : printKW(r.mean_kW)}</Figure>
                  <Figure head="metered">{printKWh(r.meter_kWh)}</Figure>
                  <Figure head="costs">{r.money ?? <span className="font-sans text-ink-2">no price on file</span>}</Figure>
                  <Figure head="range">{r.range_km === null ? '\u2003' : printDistance(r.range_km, who.wishes.distance)}</Figure>
                  <td className={`px-2 py-1.5 text-left text-ink-2 max-sm:px-3 ${CARDS.whole}`}>
                    <PhoneHead>held back by</PhoneHead>
                    {r.heldBackBy.map((h) => `${heldText(h.limit, null)} ${Math.round(h.from)}–${Math.round(h.to)} %`).join(', ')}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      ) : null}
      <ul className="mt-3 max-w-[860px] text-[13px] text-ink-2">
        {words.map((w) => (
          <li key={w} className="py-0.5">
            {w}
          </li>
        ))}
        {rows.length > 0 ? (
          <li className="py-0.5">
            Money is what is paid today by the price on file,{' '}
            {idea.price === null ? 'as a guest' : `with ${page.prices.find((p) => p.id === idea.price)?.name}`}, begun now. A post may be derated, taken or
            slow: what it is worth stands in Compare.
          </li>
        ) : null}
      </ul>
    </div>
  );
}

const Figure = ({ head, children }: { head: string; children: ReactNode }) => (
  <td className={`num whitespace-nowrap px-2 py-1.5 max-sm:px-3 ${CARDS.cell}`}>
    <PhoneHead>{head}</PhoneHead>
    {children}
  </td>
);
