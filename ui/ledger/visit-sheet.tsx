import type { ReactNode } from 'react';
import { faultLabel } from '@/core/faults/fault-list';
import { meansLabel } from '@/core/records/means-kind';
import type { RecordFields } from '@/core/records/record-schema';
import { plateText } from '@/core/records/stall-plate';
import type { DistanceUnit } from '@/core/units/distance';
import { NOT_READ, printCount, printDuration } from '@/core/units/print';
import { printLongDate, printTime } from '@/core/units/zoned';
import { meansOf } from '@/core/visit/attempt-times';
import type { Visit } from '@/core/visit/derive';
import { energyText } from '@/core/visit/energy-text';
import type { Hold } from '@/core/visit/holds';
import type { StopTimes } from '@/core/visit/stop';
import { toldMarks } from '@/core/visit/told-marks';
import { visitCode } from '@/core/visit/visit-code';
import { visitFacts } from '@/core/visit/visit-facts';
import { visitFlags } from '@/core/visit/visit-flags';
import { VisitTape } from '../tape/visit-tape';
import { AttemptTable } from './attempt-table';
import { BillTable, type BillTableProps } from './bill-table';
import { type Correctable, EventTable } from './event-table';
import { GivenFigures } from './given-figures';
import { ReadingsTable } from './readings-table';
import { StopNote } from './stop-note';

export type VisitSheetData = BillTableProps & {
  state: 'over' | 'running' | 'left_open';
  names: {
    site: (id: string | null) => string;
    network: (id: string | null) => string;
    stall: (id: string | null) => string;
    car: (id: string | null) => string;
    adapter: (id: string | null) => string;
    means: (id: string | null) => string;
    person: (id: string | null) => string;
  };
  networkId: string | null;
  doubts: readonly string[];
  stalls: { id: string; fields: Pick<RecordFields<'stall'>, 'outlets'> }[];
  people: readonly unknown[];
  stop: StopTimes | null;
  clocks_s: number[];
  joinedFrom: string[];
};

/** Questions shown above the tape: a screen that was read wrong throughout must not push the visit off the page. */
const FLAGS_SHOWN = 3;

/** One visit, as a page of the book: the tape, the facts, the attempts with their times, the readings, the bill, the record itself. */
export function VisitSheet({
  page,
  around = null,
  withdraw,
  marks = null,
  addBill = null,
  release,
  distance = 'km',
  whole = false,
  correct,
}: {
  page: VisitSheetData;
  /** In what distances are read. */
  distance?: DistanceUnit;
  /** Whether all of a very long record is shown. */
  whole?: boolean;
  /** The ways to the visits before and after it. */
  around?: ReactNode;
  /** Joining and withdrawing: out of the way of reading, save where it is what one came for. */
  withdraw: ReactNode;
  /** What the visit counts as, and the way to say so. */
  marks?: ReactNode;
  /** The way to a bill or receipt that came later. */
  addBill?: ReactNode;
  /** The way to say that a hold was released. */
  release?: (hold: Hold) => ReactNode;
  correct: (event: Correctable) => ReactNode;
}) {
  const { visit: v, names } = page;
  const stallIds = [...new Set(v.attempts.map((a) => a.stallId).filter((id) => id !== null))];
  const stallText = stallIds.length === 0 ? 'no stall tried' : `stall ${stallIds.map((id) => names.stall(id)).join(', then ')}`;
  const lastStall = page.stalls.find((s) => s.id === stallIds.at(-1));
  const flags = [...page.doubts, ...visitFlags(v)];
  const at = v.pulledInAt ?? v.line[0]?.t ?? v.lastEventAt;
  return (
    <article className="relative px-4 py-4 sm:px-6 lg:h-[calc(100dvh-52px)] lg:overflow-y-auto" aria-labelledby="visit-head">
      <p className="mb-3 lg:hidden">
        <a href="/ledger" className="text-sm font-semibold text-shake underline">
          Back to the ledger
        </a>
      </p>
      {v.withdrawn ? (
        <div className="mb-4 border-l-4 border-fault bg-fault-card px-4 py-2.5" role="status">
          <p className="font-bold">This visit is withdrawn.</p>
          <p className="text-sm">
            It is kept, but stands in no list, count or figure. Restoring it takes the withdrawal back.
            {v.joinedInto ? (
              <>
                {' '}
                It was joined into{' '}
                <a href={`/ledger/${v.joinedInto}`} className="text-shake underline">
                  another recording of the same visit
                </a>
                : restoring it parts the two again.
              </>
            ) : null}
          </p>
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
          Part of this visit was recorded by a newer version. It is kept, and named below the record.
        </p>
      ) : null}
      {page.joinedFrom.map((id) => (
        <p key={id} className="mb-3 border-l-4 border-paint bg-card px-4 py-2 text-sm">
          Part of this visit was recorded apart and joined later:{' '}
          <a href={`/ledger/${id}`} className="text-shake underline">
            the other recording
          </a>
          .
        </p>
      ))}
      {page.clocks_s.map((s) => (
        <p key={s} className="mb-3 border-l-4 border-paint bg-card px-4 py-2 text-sm">
          The clock of the phone that sent this was {printDuration(Math.abs(s))} {s < 0 ? 'behind' : 'ahead of'} the server’s: the times are the phone’s own.
        </p>
      ))}
      {flags.slice(0, FLAGS_SHOWN).map((question) => (
        <p key={question} className="mb-3 border-l-4 border-paint bg-card px-4 py-2 text-sm">
          <b>Worth a second look.</b> {question}
        </p>
      ))}
      {flags.length > FLAGS_SHOWN ? (
        <p className="mb-3 px-4 text-sm text-ink-2">More looks wrong: {printCount(flags.length - FLAGS_SHOWN, 'figure')}, in the tables below.</p>
      ) : null}
      {v.jumps_s.map((s) => (
        <p key={s} className="mb-3 border-l-4 border-paint bg-card px-4 py-2 text-sm">
          The phone’s clock jumped {Math.round(Math.abs(s))} s {s < 0 ? 'back' : 'forward'} during this visit; the page’s own clock was believed.
        </p>
      ))}
      <div className="mb-2 flex flex-wrap items-end gap-3">
        <div className="min-w-[240px] flex-1">
          <p className="text-[12.5px] font-semibold text-ink-2">
            {[
              printLongDate(at, v.zone),
              v.pulledInAt === null || v.dayOnly ? null : `pulled in ${printTime(v.pulledInAt, v.zone)}`,
              names.network(page.networkId),
              stallText,
              lastStall ? plateText(lastStall.fields) : null,
              names.car(v.carId),
              // Whose visit it was is said where there is more than one who could have driven.
              page.people.length > 1 && names.person(v.driverId) ? `${names.person(v.driverId)} drove` : null,
              `code ${visitCode(v.id)}`,
            ]
              .filter(Boolean)
              .join(', ')}
          </p>
          <h1 id="visit-head" className="mt-1 text-[26px]">
            {names.site(v.siteId)}
          </h1>
        </div>
        {v.withdrawn ? withdraw : around}
      </div>
      <VisitTape
        tape={v.tape}
        marks={toldMarks(v.line, names.stall)}
        energy={v.delivered.known && v.ended === 'charge' ? energyText(v.delivered) : null}
        description={`Tape of the visit: ${
          v.tape
            .filter((s) => s.kind !== 'bare')
            .map((s) => `${s.label ?? WORD[s.kind]} ${printDuration((s.to - s.from) / 1000)}`)
            .join(', ') || 'nothing but time'
        }`}
      />
      <dl className="mt-2 grid grid-cols-2 border-b border-t-2 border-b-rule border-t-ink sm:grid-cols-3 xl:grid-cols-6">
        {visitFacts(v, page.state).map((f) => (
          <Fact key={f.label} {...f} />
        ))}
      </dl>
      {page.stop ? <StopNote stop={page.stop} here={v.id} site={names.site} /> : null}
      {v.given.length > 0 ? <GivenFigures visit={v} /> : null}
      <AttemptTable
        attempts={v.attempts.map((a) => ({
          n: a.n,
          stall: names.stall(a.stallId),
          means: meansText(a),
          outcome: a.outcome,
          times: a.times,
          shows: a.shows.length,
          // What was typed in afterwards says that there was power, not what showed it first.
          mark: a.proof && a.proof.precision !== 'day' ? a.proof.mark : null,
          faults: a.faults.map((f) => faultLabel(f.code)),
        }))}
        visitTimes={v.times}
        zone={v.zone}
      />
      <div className="mt-5 grid gap-6 xl:grid-cols-[1.25fr_1fr]">
        <ReadingsTable visit={v} whole={whole} />
        <BillTable
          visit={v}
          checked={page.checked}
          networkRecords={page.networkRecords ?? []}
          today={page.today}
          add={v.withdrawn ? null : addBill}
          {...(release ? { release } : {})}
        />
      </div>
      <EventTable visit={v} nameOf={(type, id) => names[type](id)} distance={distance} whole={whole} correct={correct} />
      {v.withdrawn ? null : (
        <section aria-label="The visit as a whole" className="no-print mt-6 grid gap-2 border-t border-rule pt-4">
          {marks}
          {withdraw}
        </section>
      )}
    </article>
  );
}

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
