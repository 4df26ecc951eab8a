import Link from 'next/link';
import type { ReactNode } from 'react';
import type { Band } from '@/core/power/bands';
import type { PowerChartData } from '@/core/power/power-chart';
import { bandHeld, paceFeet, peakText, powerSentences, ratioText } from '@/core/power/power-words';
import { type Loss, lossWords, type SessionCheck } from '@/core/power/session-checks';
import type { SessionPower } from '@/core/power/session-power';
import { type DistanceUnit, fromKm } from '@/core/units/distance';
import { NOT_READ, printKW } from '@/core/units/print';
import { KeepFigure } from '../charts/keep-figure';
import { type Along, PowerChart, VoltsAndAmps } from './power-chart';

export type PowerSheetProps = {
  /** The address of the visit's page. */
  visit: string;
  session: SessionPower;
  chart: PowerChartData;
  along: Along;
  checks: readonly SessionCheck[];
  loss: Loss | null;
  csv: string;
  distance: DistanceUnit;
  /** A form that asks for a stretch of the battery, and what it took. */
  stretch: { form: ReactNode; words: readonly string[] };
  /** What the expected power rests on, and how it was worked out. */
  basis: readonly string[];
};

const two = 'px-2 py-[3px] text-right';
/** A band's figures; what nobody read says so. */
function Row({ band, held, distance, strong = false }: { band: Band; held: string; distance: DistanceUnit; strong?: boolean }) {
  const name = `${Math.round(band.fromPct)}–${Math.round(band.toPct)}`;
  const part = band.covered === 'part' ? `${Math.round(band.coveredFrom)}–${Math.round(band.coveredTo)} of it` : '';
  return (
    <tr
      className={`num ${strong ? 'border-t-2 border-ink font-semibold' : 'border-b border-rule-2'} ${held && !/^car$|^$/.test(held) && !strong ? 'bg-picked' : ''}`}
    >
      <th scope="row" className="whitespace-nowrap py-[3px] pr-2 text-left font-normal">
        {name}
        {part ? <span className="block font-sans text-[11.5px] text-ink-2">{part}</span> : null}
      </th>
      {band.covered === 'none' ? (
        <td colSpan={5} className="px-2 font-sans text-ink-2">
          {NOT_READ}
        </td>
      ) : (
        <>
          <td className={two}>{band.minutes.toFixed(1)}</td>
          <td className={two}>{band.mean_kW === null ? '\u2003' : Math.round(band.mean_kW)}</td>
          <td className={two}>{band.kWh === null ? '\u2003' : band.kWh.toFixed(1)}</td>
          <td className={two}>{band.range_km === null ? '\u2003' : Math.round(fromKm(band.range_km, distance))}</td>
          <td className="px-2 text-left font-sans text-ink-2">{held}</td>
        </>
      )}
    </tr>
  );
}

function Fact({ label, value, foot }: { label: string; value: string; foot: string }) {
  return (
    <div className="border-rule px-3 py-2 [&:not(:first-child)]:border-l">
      <dt className="text-[12px] text-ink-2">{label}</dt>
      <dd>
        <span
          className={
            value === NOT_READ || value === 'not told' ? 'block text-[15px] font-semibold text-ink-2' : 'num block text-[20px] font-semibold tracking-[-0.05em]'
          }
        >
          {value}
        </span>
        <span className="block text-[12px] text-ink-2">{foot}</span>
      </dd>
    </div>
  );
}

/** The bands of a session, with what held each back. */
export function BandTable({ session, distance }: { session: SessionPower; distance: DistanceUnit }) {
  const rows = session.bands;
  if (rows.length === 0) return <p className="bg-card px-3 py-2 text-sm text-ink-2">The battery was read fewer than twice: there are no bands to show.</p>;
  return (
    <div className="overflow-x-auto bg-card px-2.5" role="region" aria-label="Bands of the battery" tabIndex={0}>
      <table className="w-full text-[13px]">
        <thead>
          <tr className="border-b border-ink text-right text-[12px] text-ink-2">
            <th scope="col" className="py-1.5 pr-2 text-left font-semibold">
              Battery
            </th>
            <th scope="col" className="px-2 font-semibold">
              min
            </th>
            <th scope="col" className="px-2 font-semibold">
              kW
            </th>
            <th scope="col" className="px-2 font-semibold">
              kWh
            </th>
            <th scope="col" className="px-2 font-semibold">
              {distance}
            </th>
            <th scope="col" className="px-2 text-left font-semibold">
              held back by
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.map((b) => (
            <Row key={b.fromPct} band={b} distance={distance} held={b.covered === 'none' ? '' : bandHeld(session.held, b.coveredFrom, b.coveredTo)} />
          ))}
          {session.whole && rows.length > 1 ? <Row band={session.whole} distance={distance} held="" strong /> : null}
        </tbody>
      </table>
    </div>
  );
}

/** One session's power: what it says, the chart, the figures, the bands, what held it back and every check. */
export function PowerSheet({ session, visit, chart, along, checks, loss, csv, basis, distance, stretch }: PowerSheetProps) {
  const pace = session.pace?.session ?? null;
  const told = pace && pace.took_min !== null ? pace : null;
  const feet = paceFeet(pace, session.limits !== null);
  const { mean_kW, peak_kW } = session.series;
  const wrong = checks.filter((c) => c.fine === false);
  return (
    <section aria-label={`Session ${session.n}`} className="mb-8">
      <p className="mb-4 border-l-[6px] border-paint bg-card px-4 py-2.5 text-[16.5px] leading-snug">
        {powerSentences(session).map((text, i) => (
          <span key={text} className={i === 0 ? 'font-semibold' : ''}>
            {text}{' '}
          </span>
        ))}
      </p>
      {wrong.map((c) => (
        <p key={c.name} className="mb-3 border-l-4 border-paint bg-card px-4 py-2 text-sm">
          <b>Worth a second look.</b> {c.name}: {c.arithmetic}.
        </p>
      ))}
      {wrong.length > 0 ? (
        <p className="mb-3 px-4 text-sm text-ink-2">
          A figure is corrected, or the visit left out of comparisons, on{' '}
          <Link href={visit} className="font-semibold text-shake underline">
            the visit’s page
          </Link>
          .
        </p>
      ) : null}
      <div className="grid gap-6 xl:grid-cols-[minmax(0,1fr)_minmax(0,360px)]">
        <div className="min-w-0">
          <KeepFigure name={`Power along the ${along}`} csv={csv} drawn>
            <PowerChart key={along} data={chart} along={along} />
            {chart.lines[0] ? <VoltsAndAmps line={chart.lines[0]} along={along} /> : null}
          </KeepFigure>
          {session.held.length > 0 ? (
            <>
              <h2 className="mb-1 text-[15px]">Held back by, as far as it can be told</h2>
              <ul className="text-[13px]">
                {session.held.map((h) => (
                  <li key={`${h.by} ${h.from}`} className="border-b border-rule-2 py-1">
                    <b className="num font-semibold">
                      {Math.round(h.from)}–{Math.round(h.to)}
                    </b>{' '}
                    %: {h.text}
                    <span className="block text-ink-2">
                      {SURE[h.sure]}: {h.evidence}
                    </span>
                  </li>
                ))}
              </ul>
            </>
          ) : null}
        </div>
        <div className="min-w-0">
          <dl className="mb-4 grid grid-cols-3 border-t-2 border-ink bg-card">
            <Fact label="Average" value={mean_kW === null ? NOT_READ : printKW(mean_kW)} foot={peakText(peak_kW)} />
            <Fact label="Pace" value={ratioText(told?.pace ?? null)} foot={feet.car} />
            <Fact label="Keeps its word" value={ratioText(told?.keepsItsWord ?? null)} foot={feet.word} />
          </dl>
          <BandTable session={session} distance={distance} />
          {session.whole ? stretch.form : null}
          {stretch.words.map((text) => (
            <p key={text} className="num mt-1.5 text-[13.5px] tracking-[-0.02em]">
              {text}
            </p>
          ))}
          <ul className="mt-2 text-[12.5px] text-ink-2">
            {basis.map((b) => (
              <li key={b} className="py-0.5">
                {b}
              </li>
            ))}
            {loss ? <li className="py-0.5">{lossWords(loss)}</li> : null}
          </ul>
          <details className="mt-2 text-[13px]">
            <summary className="min-h-[28px] cursor-pointer font-semibold text-shake">How this was checked</summary>
            <ul>
              {checks.map((c) => (
                <li key={c.name} className="border-b border-rule-2 py-1">
                  <b className="font-semibold">{c.name}</b> {c.fine === null ? 'not checked' : c.fine ? 'fits' : 'does not fit'}
                  <span className="block text-ink-2">{c.arithmetic}</span>
                </li>
              ))}
              {checks.length === 0 ? <li className="text-ink-2">Too little was read to check anything.</li> : null}
            </ul>
          </details>
        </div>
      </div>
    </section>
  );
}
const SURE = { noted: 'Noted', fits: 'Fits', guess: 'A guess' } as const;

/** A choice of the page as a link that looks like a plate. */
export function PageChoice({ href, chosen = false, children }: { href: string; chosen?: boolean; children: ReactNode }) {
  return (
    <Link href={href} className="plate" aria-current={chosen ? 'true' : undefined} scroll={false}>
      {children}
    </Link>
  );
}
