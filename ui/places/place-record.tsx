import Link from 'next/link';
import type { ReactNode } from 'react';
import { type LedgerFilter, writeLedgerFilter } from '@/core/compare/ledger-filter';
import type { PlaceRecord } from '@/core/compare/place-record';
import { arrivalWords, NOT_METERED, placeRows, SPREAD_WORDS } from '@/core/compare/place-words';
import { YARDSTICKS } from '@/core/compare/yardsticks';
import type { Population } from '@/core/figures/populations';
import { meansLabel } from '@/core/records/means-kind';
import { printDuration, printShare } from '@/core/units/print';
import { printMonth } from '@/core/units/zoned';
import { Rows, Section } from './section';

/** Months that the picture of the trend bears. */
const MONTHS = 18;

type Place = { filter: Partial<LedgerFilter>; record: PlaceRecord };
const listOf = ({ filter }: Pick<Place, 'filter'>, counted?: Population, more: Partial<LedgerFilter> = {}) =>
  `/ledger${writeLedgerFilter({ time: 'handshake', mark: 'kW', ...filter, ...(counted ? { counted } : {}), ...more })}`;
const Opens = ({ href, children }: { href: string; children: ReactNode }) => (
  <Link prefetch={false} href={href} className="num inline-block min-h-6 underline decoration-rule underline-offset-4">
    {children}
  </Link>
);

/** Its record in one look: every figure opens its visits. */
export function RecordRows(place: Place & { empty: string }) {
  const rows = placeRows(place.record.all).map(({ label, value, counted }): [ReactNode, ReactNode] => [
    label,
    counted ? (
      <Opens key={label} href={listOf(place, counted)}>
        {value}
      </Opens>
    ) : /^\d/.test(value) ? (
      <span key={label} className="num">
        {value}
      </span>
    ) : (
      value
    ),
  ]);
  return <Rows rows={rows} empty={place.empty} />;
}

/** So many of the stalls or sites to choose from are shown. */
const CHOICES = 12;

/** How it went on over time, how quick it is by which means, what to choose, and what was seen on arrival. */
export function PlaceSections({
  choose,
  nameOf,
  hrefOf,
  ...place
}: Place & { choose: 'stall' | 'site'; nameOf: (key: string) => string; hrefOf: (key: string) => string }) {
  const { record } = place;
  const timed = record.byMeans.filter((r) => r.cells.wait && (r.cells.wait.timed > 0 || r.cells.wait.never > 0));
  return (
    <>
      <Section head={choose === 'stall' ? 'Which stalls to choose' : 'Which sites to choose'} beside="starts at the first try">
        <Rows
          rows={record.choices.slice(0, CHOICES).map((c) => [
            <Link key="n" href={hrefOf(c.key)} className="inline-block min-h-6 font-semibold underline decoration-rule underline-offset-4">
              {nameOf(c.key)}
            </Link>,
            <span key="v">
              <Opens href={listOf(place, 'attempted', choose === 'site' ? { site: c.key } : { groups: [{ by: 'stall', key: c.key }] })}>
                {c.yes} of {c.n}
              </Opens>
              {c.pulled === null || record.spread !== 'interior' ? null : (
                <span className="block text-[12.5px] text-ink-2">
                  taken as {printShare(c.pulled)}
                  {c.interval ? `, ${printShare(c.interval[0])} to ${printShare(c.interval[1])}` : ''}
                </span>
              )}
            </span>,
          ])}
          empty="No visit with a start yet."
        />
        {record.choices.length > CHOICES ? (
          <p className="mt-2 text-[13px] text-ink-2">
            The first {CHOICES} of {record.choices.length}; all of them stand in Compare.
          </p>
        ) : null}
        {record.spread ? <p className="mt-2 text-[13px] text-ink-2">{SPREAD_WORDS[record.spread]}</p> : null}
      </Section>
      <Section head="Typical handshake" beside="to first kW, by means">
        <Rows
          rows={timed.map((r) => {
            const key = r.groups[0]?.key ?? '';
            const w = r.cells.wait;
            return [
              meansLabel(key),
              <span key="v">
                <Opens href={listOf(place, w && w.timed > 0 ? 'timed' : 'never', { groups: [{ by: 'means', key }] })}>
                  {w ? (w.median.known ? printDuration(w.median.value) : w.median.why) : ''}
                </Opens>
                <span className="block text-[12.5px] text-ink-2">
                  {w?.timed} timed{w && w.never > 0 ? `, ${w.never} never` : ''}
                </span>
              </span>,
            ];
          })}
          empty="No start was timed yet."
        />
      </Section>
      <Section head="Month by month" beside="started at the first try">
        <Trend trend={record.trend.slice(-MONTHS)} />
      </Section>
      <Section head="As seen on arrival" beside="bays in order">
        <Arrival place={place} />
      </Section>
    </>
  );
}

/** Starts of each month, those at the first try filled. */
function Trend({ trend }: { trend: PlaceRecord['trend'] }) {
  if (trend.length === 0) return <p className="text-sm text-ink-2">No visit with a start yet.</p>;
  const most = Math.max(...trend.map((m) => m.n), 4);
  const width = 300;
  const step = Math.min(28, width / trend.length);
  const y = (n: number) => (n / most) * 64;
  const [first, last] = [trend[0], trend.at(-1)];
  return (
    <svg
      viewBox={`0 0 ${width} 92`}
      className="w-full max-w-[420px]"
      role="img"
      aria-label={trend.map((m) => `${printMonth(m.month)}: ${m.yes} of ${m.n}`).join('; ')}
    >
      <line x1="0" x2={width} y1="70" y2="70" stroke="var(--rule)" />
      {trend.map((m, i) => (
        <g key={m.month}>
          <rect x={i * step + 2} width={step - 5} y={70 - y(m.n)} height={y(m.n)} fill="none" stroke="var(--fault)" strokeDasharray="2 2" />
          <rect x={i * step + 2} width={step - 5} y={70 - y(m.yes)} height={y(m.yes)} fill="var(--ink)" />
          <text x={i * step + step / 2} y={Math.max(10, 66 - y(m.n))} textAnchor="middle" className="num" fontSize="10" fill="var(--ink-2)">
            {m.n}
          </text>
        </g>
      ))}
      {first ? (
        <text x="0" y="86" fontSize="11" fill="var(--ink-2)">
          {printMonth(first.month)}
        </text>
      ) : null}
      {last && trend.length > 3 ? (
        <text x={Math.max(trend.length * step, 120)} y="86" textAnchor="end" fontSize="11" fill="var(--ink-2)">
          {printMonth(last.month)}
        </text>
      ) : null}
    </svg>
  );
}

/** What was seen on arrival beside what rules ask as metered. */
function Arrival({ place }: { place: Place }) {
  const { arrival } = place.record;
  const n = arrival.yes + arrival.no;
  const words = arrivalWords(place.record);
  if (!arrival.interval || !words) return <p className="text-sm text-ink-2">No bays were looked at on arrival.</p>;
  const [low, high] = arrival.interval;
  const x = (v: number) => 4 + v * 292;
  return (
    <>
      <p className="text-[14.5px]">
        <Opens href={listOf(place, 'looked')}>{words.looks}</Opens>: {words.rest}, <b className="num">{words.share}</b>, 95 % interval {words.interval}.
      </p>
      <svg viewBox="0 0 300 26" className="mt-1 w-full max-w-[420px]" aria-hidden="true">
        <line x1="4" x2="296" y1="13" y2="13" stroke="var(--rule-2)" />
        <rect x={x(1 - high)} width={Math.max(2, x(1 - low) - x(1 - high))} y="9" height="8" fill="var(--ink)" />
        <rect x={x(arrival.no / n) - 4} width="8" y="4" height="18" fill="var(--paint)" stroke="var(--on-paint)" strokeWidth="1.5" />
        {YARDSTICKS.map((s) => (
          <line key={s.share} x1={x(s.share)} x2={x(s.share)} y1="1" y2="25" stroke="var(--shake)" strokeWidth="1.5" />
        ))}
      </svg>
      <Rows
        rows={words.rows.map((s) => [
          <span key="s">
            {s.label} <span className="text-[12.5px] text-ink-2">{s.source}</span>
          </span>,
          s.verdict,
        ])}
        empty=""
      />
      <p className="mt-2 text-[13px] text-ink-2">{NOT_METERED}</p>
    </>
  );
}
