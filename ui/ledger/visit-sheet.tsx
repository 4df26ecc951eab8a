import type { ReactNode } from 'react';
import { faultLabel } from '@/core/faults/fault-list';
import { meansLabel } from '@/core/records/means-kind';
import type { ExpectedBill } from '@/core/tariff/simple-tariff';
import type { Maybe } from '@/core/units/known';
import { printMoney, printPerKWh } from '@/core/units/money';
import { NOT_READ, printDuration, printKW, printKWh } from '@/core/units/print';
import { printClock, printLongDate, printTime } from '@/core/units/zoned';
import { meansOf } from '@/core/visit/attempt-times';
import type { Visit } from '@/core/visit/derive';
import { describeEnd } from '@/core/visit/describe-visit';
import { eventLabel } from '@/core/visit/event-label';
import type { Placed } from '@/core/visit/order';
import { span } from '@/core/visit/timing';
import { VisitTape } from '../tape/visit-tape';
import { AttemptTable } from './attempt-table';
import { type Correctable, EventTable } from './event-table';
import { timingText } from './timing-text';

export type VisitSheetData = {
  visit: Visit;
  state: 'over' | 'running' | 'left_open';
  names: {
    site: (id: string | null) => string;
    network: (id: string | null) => string;
    stall: (id: string | null) => string;
    car: (id: string | null) => string;
  };
  networkId: string | null;
  stalls: { id: string; fields: { ratedKW: number; connector: string } }[];
  expected: ExpectedBill | null;
  difference: Maybe<string> | null;
  people: Record<string, string>;
};

/** One visit, as a page of the book: the tape, the facts, the attempts with their times, the readings, the bill, the record itself. */
export function VisitSheet({ page, withdraw, correct }: { page: VisitSheetData; withdraw: ReactNode; correct: (event: Correctable) => ReactNode }) {
  const { visit: v, names } = page;
  const stallIds = [...new Set(v.attempts.map((a) => a.stallId).filter((id) => id !== null))];
  const stallText = stallIds.length === 0 ? 'no stall tried' : `stall ${stallIds.map((id) => names.stall(id)).join(', then ')}`;
  const lastStall = page.stalls.find((s) => s.id === stallIds.at(-1));
  const session = v.attempts.find((a) => a.proof);
  const end = describeEnd({ state: page.state, ended: v.ended, leftReason: v.leftReason });
  const failed = v.attempts.filter((a) => a.outcome.kind === 'failed' || a.outcome.kind === 'gave_up').length;
  const at = v.pulledInAt ?? v.line[0]?.t ?? v.lastEventAt;
  return (
    <article className="px-4 py-4 sm:px-6 lg:h-[calc(100dvh-52px)] lg:overflow-y-auto" aria-labelledby="visit-head">
      <p className="mb-3 lg:hidden">
        <a href="/ledger" className="text-sm font-semibold text-shake underline">
          Back to the ledger
        </a>
      </p>
      {v.withdrawn ? (
        <div className="mb-4 border-l-4 border-fault bg-fault-card px-4 py-2.5" role="status">
          <p className="font-bold">This visit is withdrawn.</p>
          <p className="text-sm">It is kept, but stands in no list, count or figure. Restoring it takes the withdrawal back.</p>
        </div>
      ) : null}
      {page.state !== 'over' ? (
        <p className="mb-3 border-l-4 border-paint bg-card px-4 py-2 text-sm">
          {page.state === 'running'
            ? 'This visit is still open: its figures grow as events arrive.'
            : 'This visit was left open: pulling out was never recorded. What needs it is unknown.'}
        </p>
      ) : null}
      {v.newer ? (
        <p className="mb-3 border-l-4 border-paint bg-card px-4 py-2 text-sm">
          Part of this visit was recorded by a newer version. It is kept, and not shown here.
        </p>
      ) : null}
      {v.jumps_s.map((s) => (
        <p key={s} className="mb-3 border-l-4 border-paint bg-card px-4 py-2 text-sm">
          The phone’s clock jumped {Math.round(Math.abs(s))} s {s < 0 ? 'back' : 'forward'} during this visit; the page’s own clock was believed.
        </p>
      ))}
      <div className="mb-2 flex flex-wrap items-end gap-3">
        <div className="min-w-0">
          <p className="text-[12.5px] font-semibold text-ink-2">
            {[
              printLongDate(at, v.zone),
              v.pulledInAt === null ? null : `pulled in ${printTime(v.pulledInAt, v.zone)}`,
              names.network(page.networkId),
              stallText,
              lastStall ? `${lastStall.fields.ratedKW} kW ${lastStall.fields.connector}` : null,
              names.car(v.carId),
            ]
              .filter(Boolean)
              .join(', ')}
          </p>
          <h1 id="visit-head" className="mt-1 text-[26px]">
            {names.site(v.siteId)}
          </h1>
        </div>
        <span className="grow" />
        {withdraw}
      </div>
      <VisitTape
        tape={v.tape}
        marks={v.line.filter((e) => isTold(e, v.line)).map((e) => ({ t: e.t, text: eventLabel(e, names.stall) }))}
        energy={v.delivered.known && v.ended === 'charge' ? printKWh(v.delivered.value) : null}
        description={`Tape of the visit: ${
          v.tape
            .filter((s) => s.kind !== 'bare')
            .map((s) => `${s.label ?? WORD[s.kind]} ${printDuration((s.to - s.from) / 1000)}`)
            .join(', ') || 'nothing but time'
        }`}
      />
      <dl className="mt-2 grid grid-cols-2 border-b border-t-2 border-b-rule border-t-ink sm:grid-cols-3 xl:grid-cols-6">
        <Fact
          label="Attempts"
          value={String(v.attempts.length)}
          foot={v.attempts.length === 0 ? end || 'none' : failed === 0 ? 'none failed' : `${failed} failed`}
        />
        <Fact
          label="Handshake"
          value={session ? timingText(session.times.handshake) : NOT_READ}
          foot={
            session
              ? session.times.handshake.known
                ? `attempt ${session.n}, to first ${session.proof?.mark}`
                : session.times.handshake.why
              : 'no power was seen'
          }
        />
        <Fact
          label="Lost to faults"
          value={timingText(v.times.lost)}
          foot={v.times.visit.known ? `of ${printDuration(v.times.visit.s)} visit` : !v.times.lost.known ? v.times.lost.why : ''}
        />
        <Fact
          label="Delivered"
          value={v.delivered.known ? printKWh(v.delivered.value) : NOT_READ}
          foot={!v.delivered.known ? v.delivered.why : v.socFrom !== null && v.socTo !== null ? `${v.socFrom} to ${v.socTo} %` : 'battery not read'}
        />
        <Fact
          label="Average power"
          value={v.average.known ? printKW(v.average.value) : NOT_READ}
          foot={v.peak.known ? `peak ${Math.round(v.peak.value.kW)}, ${v.peak.value.screen}’s screen` : v.average.known ? v.peak.why : v.average.why}
        />
        <Fact
          label="Paid"
          value={v.paid.known ? printMoney(v.paid.value.amount, v.paid.value.currency) : NOT_READ}
          foot={v.allIn.known ? `${printPerKWh(v.allIn.value.perKWh, v.allIn.value.currency)} per kWh all-in` : v.paid.known ? v.allIn.why : v.paid.why}
        />
      </dl>
      <AttemptTable
        attempts={v.attempts.map((a) => ({
          n: a.n,
          stall: names.stall(a.stallId),
          means: meansText(a),
          outcome: a.outcome,
          times: a.times,
          shows: a.shows.length,
          mark: a.proof?.mark ?? null,
          faults: a.faults.map((f) => faultLabel(f.code)),
        }))}
        visitTimes={v.times}
        zone={v.zone}
      />
      <div className="mt-5 grid gap-6 xl:grid-cols-[1.25fr_1fr]">
        <Readings visit={v} />
        <Bill page={page} />
      </div>
      <EventTable visit={v} people={page.people} stallNames={Object.fromEntries(stallIds.map((id) => [id, names.stall(id)]))} correct={correct} />
    </article>
  );
}

/** What is told above the tape; what the paint itself shows, power and waiting, needs no words. */
const MARKED = new Set<string>([
  'pulled_in',
  'queue_joined',
  'stall_chosen',
  'plugged',
  'means_refused',
  'fault',
  'change',
  'stop_asked',
  'power_gone',
  'pulled_out',
]);
const isTold = (e: Placed, line: readonly Placed[]): boolean => {
  if (e.kind === 'power_gone') return e.payload.why !== 'asked';
  // A plug right after its stall was chosen stands under the same words.
  if (e.kind === 'plugged') return !line.some((o) => o.kind === 'stall_chosen' && o.t <= e.t && e.t - o.t < 90_000);
  return MARKED.has(e.kind);
};
const WORD = { bare: '', queue: 'queue', handshake: 'waiting for power', fault: 'fault', energy: 'charging', idle: 'idle' } as const;

const meansText = (a: Visit['attempts'][number]): string => {
  const m = meansOf(a);
  return m ? meansLabel(m.meansKind) : 'no means recorded';
};

function Fact({ label, value, foot }: { label: string; value: string; foot: string }) {
  return (
    <div className="border-rule py-2 pl-3.5 pr-2 [&:not(:first-child)]:border-l max-sm:[&:nth-child(odd)]:border-l-0">
      <dt className="text-[12px] text-ink-2">{label}</dt>
      <dd>
        <span
          className={`block leading-tight ${value === NOT_READ ? 'text-[16px] font-semibold text-ink-2' : 'num text-[21px] font-semibold tracking-[-0.05em]'}`}
        >
          {value}
        </span>
        <span className="block text-[12px] text-ink-2">{foot}</span>
      </dd>
    </div>
  );
}

function Readings({ visit: v }: { visit: Visit }) {
  const rows = v.attempts.flatMap((a) => a.readings.map((r) => ({ ...r, n: a.n, after: a.proof ? span(a.proof, r.mark) : null })));
  return (
    <section aria-labelledby="readings-head">
      <h2 id="readings-head" className="mb-1.5 text-[15px]">
        Readings
      </h2>
      {rows.length === 0 ? (
        <p className="text-sm text-ink-2">None was taken.</p>
      ) : (
        <div className="overflow-x-auto">
          <table className="w-full text-[13px]">
            <thead>
              <tr className="border-b border-ink text-right text-[12px] text-ink-2">
                <th scope="col" className="py-1 pr-2 text-left font-semibold">
                  Time
                </th>
                <th scope="col" className="px-2 font-semibold">
                  After power
                </th>
                <th scope="col" className="px-2 font-semibold">
                  Battery
                </th>
                <th scope="col" className="px-2 font-semibold">
                  kW
                </th>
                <th scope="col" className="px-2 font-semibold">
                  kWh
                </th>
                <th scope="col" className="px-2 font-semibold">
                  Cost
                </th>
                <th scope="col" className="pl-2 font-semibold">
                  Screen
                </th>
              </tr>
            </thead>
            <tbody>
              {rows.map((r) => (
                <tr key={r.mark.id} className="num border-b border-rule-2 text-right">
                  <td className="py-1 pr-2 text-left">{printClock(r.mark.t, v.zone)}</td>
                  <td className="px-2">{r.after?.known ? timingText(r.after) : '\u2003'}</td>
                  <td className="px-2">{r.socPct === undefined ? '\u2003' : `${r.socPct} %`}</td>
                  <td className="px-2">{r.kW === undefined ? '\u2003' : Math.round(r.kW)}</td>
                  <td className="px-2">{r.kWh ?? '\u2003'}</td>
                  <td className="px-2">{r.cost === undefined ? '\u2003' : r.currency ? printMoney(r.cost, r.currency) : r.cost}</td>
                  <td className="pl-2 font-sans">{r.screen}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
    </section>
  );
}

function Bill({ page: { visit: v, expected, difference } }: { page: VisitSheetData }) {
  const line = (label: string, amount: string, bold = false, key = label) => (
    <tr key={key} className={`border-b border-rule-2 ${bold ? 'font-bold' : ''}`}>
      <th scope="row" className={`py-1 text-left ${bold ? 'font-bold' : 'font-normal'}`}>
        {label}
      </th>
      <td className="num text-right">{amount}</td>
    </tr>
  );
  return (
    <section aria-labelledby="bill-head">
      <h2 id="bill-head" className="mb-1.5 text-[15px]">
        The bill
      </h2>
      {!expected && v.bills.length === 0 ? (
        <p className="text-sm text-ink-2">No bill recorded, and no price known for that day.</p>
      ) : (
        <table className="w-full text-[13px]">
          <tbody>
            {expected?.lines.map((l) => line(l.label, printMoney(l.amount, expected.currency)))}
            {expected ? line('Should be, tax in', printMoney(expected.total, expected.currency), true) : null}
            {v.bills.map((b) =>
              line(
                b.payload.state === 'refunded' ? 'Refunded' : `Was charged${b.payload.kWh ? ` for ${printKWh(b.payload.kWh)}` : ''}`,
                printMoney(b.payload.amount, b.payload.currency),
                true,
                b.id,
              ),
            )}
            {v.bills.length === 0 ? line('Was charged', 'no bill yet', true) : null}
          </tbody>
        </table>
      )}
      {difference?.known && expected && difference.value !== '0.00' && Number(difference.value) !== 0 ? (
        <p className="mt-2.5 border-l-4 border-fault bg-fault-card px-3 py-2 text-[13px]">
          <b>
            {printMoney(difference.value.replace('-', ''), expected.currency)} {difference.value.startsWith('-') ? 'under' : 'over'}.
          </b>{' '}
          Set against the price kept for this network on that day.
        </p>
      ) : null}
      {difference && !difference.known ? <p className="mt-2 text-[13px] text-ink-2">{difference.why}.</p> : null}
      {!expected && v.bills.length > 0 ? (
        <p className="mt-2 text-[13px] text-ink-2">No price is kept for this network on that day, so the bill is not checked.</p>
      ) : null}
    </section>
  );
}
