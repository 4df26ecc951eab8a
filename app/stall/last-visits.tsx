'use client';
import { useState } from 'react';
import type { LastVisit } from '@/client/store/last-visits';
import { printMoney } from '@/core/units/money';
import { printDuration } from '@/core/units/print';
import { printDay, printTime } from '@/core/units/zoned';
import { energyText } from '@/core/visit/energy-text';
import type { Records, StallHands } from './stall-state';

type Props = { visits: readonly LastVisit[]; records: Records; hands: StallHands };
const SHOWN = 6;

/** Visits that are still open, on whichever phone of the household: gone on with, or joined. */
export function OpenVisits(props: Props) {
  return <VisitButtons {...props} visits={props.visits.slice(0, 3)} verb={(v) => (v.recordedHere ? 'Go on with' : 'Join')} />;
}

/** The last visits that are over: those on this phone open without a network too. */
export function LastVisits(props: Props) {
  const [all, setAll] = useState(false);
  const { visits } = props;
  if (visits.length === 0) return null;
  return (
    <section aria-label="Last visits" className="mt-5">
      <h2 className="mb-2 text-[15px]">Last visits</h2>
      <VisitButtons {...props} visits={all ? visits : visits.slice(0, SHOWN)} verb={() => 'Open'} />
      {!all && visits.length > SHOWN ? (
        <button type="button" className="mt-1 min-h-[44px] text-sm font-semibold text-shake underline" onClick={() => setAll(true)}>
          {visits.length - SHOWN} more
        </button>
      ) : null}
    </section>
  );
}

function VisitButtons({ visits, records, hands, verb }: Props & { verb: (v: LastVisit) => string }) {
  const [problem, setProblem] = useState<string | null>(null);
  /** The one that was pressed last, while it is fetched. */
  const [opening, setOpening] = useState<string | null>(null);
  const open = async (id: string) => {
    setOpening(id);
    setProblem(null);
    const why = await hands.openVisit(id).catch(() => 'It cannot be opened just now. Try again.');
    setProblem(why);
    setOpening((now) => (now === id ? null : now));
  };
  return (
    <>
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(min(100%,296px),1fr))] gap-2">
        {visits.map((v) => {
          const site = v.siteName ?? records.site.find((s) => s.id === v.siteId)?.fields.name ?? (v.siteId === null ? 'Somewhere new' : 'Unknown site');
          return (
            <li key={v.id}>
              <button
                type="button"
                className="flex min-h-[52px] w-full items-center gap-3 rounded-lg border-2 border-rule bg-card px-3 py-1.5 text-left"
                onClick={() => void open(v.id)}
                aria-busy={opening === v.id}
                aria-label={`${verb(v)}: ${site}, ${printDay(v.at, v.zone)} ${v.timeKnown ? printTime(v.at, v.zone) : ''}`.trim()}
              >
                <span className="min-w-0 grow">
                  <b className="block text-[15px] wrap-anywhere">{site}</b>
                  <span className="block text-[13px] text-ink-2">{opening === v.id ? 'opening …' : facts(v)}</span>
                </span>
                <span className="num shrink-0 text-right text-[13px] text-ink-2">
                  {printDay(v.at, v.zone)}
                  <br />
                  {v.timeKnown ? printTime(v.at, v.zone) : null}
                </span>
              </button>
            </li>
          );
        })}
      </ul>
      {problem ? (
        <p role="alert" className="mt-2 text-[14px] font-semibold text-fault">
          {problem}
        </p>
      ) : null}
    </>
  );
}

function facts(v: LastVisit): string {
  if (v.state === 'running') return v.recordedHere ? 'open on this phone: go on with it' : 'open on another phone: join it';
  return [
    v.ended === 'none' ? 'without a charge' : v.state === 'left_open' ? 'left open' : null,
    v.kWh === null || v.ended === 'none' ? null : energyText({ value: v.kWh, ...(v.kWhAtLeast ? { atLeast: true as const } : {}) }),
    v.handshake_s === null ? null : `handshake ${printDuration(v.handshake_s)}`,
    v.paid !== null && v.currency !== null ? printMoney(v.paid, v.currency) : null,
  ]
    .filter(Boolean)
    .join(', ');
}
