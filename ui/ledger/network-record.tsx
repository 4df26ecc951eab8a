import type { CheckedRecord } from '@/core/formats/network-record';
import type { PeriodIn } from '@/core/formats/ocpi-cdrs';
import { NOT_READ, printDuration, printKWh } from '@/core/units/print';
import { printTime } from '@/core/units/zoned';
import { SignedValues } from './signed-values';

/** Periods that are shown at once; a record of more is opened. */
const PERIODS_SHOWN = 6;

/** What a network recorded of a charge, beside what was recorded here. */
export function NetworkRecordTable({ record: r, visitId, zone }: { record: CheckedRecord; visitId: string; zone: string }) {
  const head = (text: string, key = text) => (
    <th key={key} scope="col" className={`py-1 font-semibold ${key === '' ? 'text-left' : 'pl-3 text-right'}`}>
      {text}
    </th>
  );
  return (
    <section aria-label={`The network’s record ${r.id}`} className="mt-4">
      <h3 className="text-[14px]">The network’s record</h3>
      <p className="mb-1 text-[12px] text-ink-2">{[r.id, r.evse].filter(Boolean).join(', ')}. It corrects nothing that was recorded here.</p>
      <div className="overflow-x-auto" role="region" aria-label="The network’s figures beside those recorded here" tabIndex={0}>
        <table className="w-full text-[13px]">
          <thead>
            <tr className="border-b border-ink text-[12px] text-ink-2">
              {head('', '')}
              {head('network')}
              {head('here')}
            </tr>
          </thead>
          <tbody>
            {r.figures.map((f) => (
              <tr key={f.what} className="border-b border-rule-2">
                <th scope="row" className="py-1 text-left font-normal">
                  {f.what}
                </th>
                <td className="num py-1 pl-3 text-right">{f.network}</td>
                <td className="num py-1 pl-3 text-right text-ink-2">{f.own ?? NOT_READ}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {r.periods.length > 1 ? (
        <details className="mt-1 text-[13px]" open={r.periods.length <= PERIODS_SHOWN}>
          <summary className="inline-block min-h-6 cursor-pointer py-1 font-semibold text-shake">{r.periods.length} periods</summary>
          <Periods periods={r.periods} zone={zone} />
        </details>
      ) : null}
      {r.said.length > 0 ? (
        <ul className="mt-1 list-disc pl-5 text-[13px]">
          {r.said.map((s) => (
            <li key={s}>{s}</li>
          ))}
        </ul>
      ) : null}
      {r.signed && r.told ? <SignedValues method={r.signed.method} told={r.told} visitId={visitId} billId={r.billId} zone={zone} /> : null}
    </section>
  );
}

function Periods({ periods, zone }: { periods: readonly PeriodIn[]; zone: string }) {
  const minutes = (m: number | null) => (m === null || m === 0 ? '' : printDuration(m * 60));
  return (
    <div className="overflow-x-auto" role="region" aria-label="Periods of the network’s record" tabIndex={0}>
      <table className="w-full text-[12.5px]">
        <thead>
          <tr className="border-b border-rule text-left text-[12px] text-ink-2">
            {['from', 'energy', 'charging', 'parked', 'beside'].map((h) => (
              <th key={h} scope="col" className="py-1 pr-3 font-semibold">
                {h}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {periods.map((p, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: two may begin at once
            <tr key={i} className="border-b border-rule-2">
              <td className="num py-1 pr-3">{printTime(p.start, zone)}</td>
              <td className="num py-1 pr-3">{p.kWh === null ? '' : printKWh(p.kWh)}</td>
              <td className="num py-1 pr-3">{minutes(p.charging_min)}</td>
              <td className="num py-1 pr-3">{minutes(p.parking_min)}</td>
              <td className="py-1 text-ink-2">{p.other.map((o) => `${o.type} ${o.volume}`).join(', ')}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
