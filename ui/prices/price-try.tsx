'use client';
import { useMemo, useState } from 'react';
import type { ExtraPricing, OcpiTariff } from '@/core/records/ocpi-tariff';
import { billOf, cannotPrice } from '@/core/tariff/bill';
import { billWords } from '@/core/tariff/bill-words';
import { compileTariff } from '@/core/tariff/compiled-tariff';
import { exampleStop, nextWeekday } from '@/core/tariff/example-stop';
import { priceQuestions } from '@/core/tariff/price-questions';
import { priceWeek, WEEK, weekdayName } from '@/core/tariff/price-week';
import { localInstant } from '@/core/units/local-time';
import { printMoney } from '@/core/units/money';
import { Section } from '../places/section';
import { WeekClock } from './week-clock';

const NAMES = ['Sunday', 'Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday'];

/** What a price means: the week by the clock, what one stop costs, and what looks odd, as one types. */
export function PriceTry({ object, zone, today }: { object: { tariff: OcpiTariff; extra: ExtraPricing | null } | null; zone: string; today: string }) {
  const [kWh, setKWh] = useState('40');
  const [minutes, setMinutes] = useState('30');
  const [parked, setParked] = useState('0');
  const [weekday, setWeekday] = useState(2);
  const [time, setTime] = useState('17:00');
  const compiled = useMemo(() => (object ? compileTariff(object.tariff, object.extra ?? {}) : null), [object]);
  const number = (text: string, most: number) => {
    const n = Number(text.replace(',', '.'));
    return text.trim() !== '' && Number.isFinite(n) && n >= 0 && n <= most ? n : null;
  };
  const [k, m, p] = [number(kWh, 1000), number(minutes, 1440), number(parked, 10_000)];
  const day = nextWeekday(today, weekday);
  const start = localInstant(day, time, zone);
  const stop = k !== null && m !== null && m > 0 && p !== null && start !== null ? exampleStop(zone, start, k, m, p) : null;
  const problem = compiled && stop ? cannotPrice(compiled, stop)[0] : undefined;
  const bill = compiled && stop && !problem ? billWords(billOf(compiled, stop), zone) : null;
  const questions = compiled ? priceQuestions(compiled, day) : [];
  const small = (label: string, value: string, set: (v: string) => void) => (
    <label className="block text-[13px] font-semibold">
      {label}
      <input className="field mt-0.5" inputMode="decimal" value={value} onChange={(e) => set(e.target.value)} />
    </label>
  );
  return (
    <>
      <Section head="Through the week" beside={object ? `${object.tariff.currency} per kWh` : null}>
        {compiled && object ? (
          <WeekClock week={priceWeek(compiled, today)} currency={object.tariff.currency} />
        ) : (
          <p className="text-sm text-ink-2">Type a price first.</p>
        )}
      </Section>
      <Section head="What a stop costs by it" className="mt-6">
        <div className="grid grid-cols-3 gap-2">
          {small('kWh', kWh, setKWh)}
          {small('in minutes', minutes, setMinutes)}
          {small('then parked, min', parked, setParked)}
        </div>
        <div className="mt-2 grid grid-cols-2 gap-2">
          <label className="block text-[13px] font-semibold">
            on
            <select className="field mt-0.5" value={weekday} onChange={(e) => setWeekday(Number(e.target.value))}>
              {WEEK.map((w) => (
                <option key={w} value={w}>
                  {NAMES[w] ?? weekdayName(w)}
                </option>
              ))}
            </select>
          </label>
          <label className="block text-[13px] font-semibold">
            at
            <input type="time" className="field mt-0.5" value={time} onChange={(e) => setTime(e.target.value)} />
          </label>
        </div>
        <div aria-live="polite" className="mt-3">
          {bill ? (
            <>
              <p className="text-[15px]">
                {kWh} kWh in {minutes} min on {NAMES[weekday]} at {time} costs <b className="num">{printMoney(bill.total, bill.currency)}</b>.
              </p>
              <table className="mt-2 w-full text-[13px]">
                <tbody>
                  {bill.lines.map((l) => (
                    <tr key={`${l.label} ${l.how}`} className="border-b border-rule-2">
                      <th scope="row" className="py-1 pr-3 text-left font-normal">
                        {l.label}
                        <span className="block text-[12px] text-ink-2">{l.how}</span>
                      </th>
                      <td className="num text-right align-top">{printMoney(l.amount, bill.currency)}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </>
          ) : (
            <p className="text-sm text-ink-2">{problem ? `Cannot be priced: ${problem.reason}.` : 'Type a price and a stop.'}</p>
          )}
          {questions.map((q) => (
            <p key={q.text} className="mt-2 border-l-4 border-paint bg-card px-3 py-2 text-[13.5px]">
              {q.text}
            </p>
          ))}
        </div>
      </Section>
    </>
  );
}
