'use client';
import * as Popover from '@radix-ui/react-popover';
import { printClock } from '@/core/units/zoned';
import { outcomeText } from '@/core/visit/attempt-text';
import { type AttemptTimes, TIME_RULES } from '@/core/visit/attempt-times';
import type { Outcome } from '@/core/visit/attempts/attempt';
import type { Timing } from '@/core/visit/timing';
import { edgesText, plusMinusText, timingText } from '@/core/visit/timing-text';
import { VISIT_TIME_RULES, type VisitTimes } from '@/core/visit/visit-times';
import { Floating } from '../forms/floating';

type AttemptLine = { n: number; stall: string; means: string; outcome: Outcome; times: AttemptTimes; shows: number; mark: string | null; faults: string[] };

/** The attempts, each with its times; every time opens its own working. */
export function AttemptTable({ attempts, visitTimes, zone }: { attempts: AttemptLine[]; visitTimes: VisitTimes; zone: string }) {
  return (
    <section aria-labelledby="attempts-head" className="mt-5">
      <h2 id="attempts-head" className="mb-1.5 text-[15px]">
        Attempts and their times
      </h2>
      {attempts.length === 0 ? <p className="mb-2 text-sm text-ink-2">No attempt was noted.</p> : null}
      <div className="grid gap-3 xl:grid-cols-2">
        {attempts.map((a) => (
          <div key={a.n} className="border-t-2 border-ink bg-card px-3 py-2">
            <h3 className="text-[14px]">
              {a.n}. Stall {a.stall || 'not named'}:{' '}
              <span className={a.outcome.kind === 'failed' || a.outcome.kind === 'gave_up' ? 'text-fault' : ''}>{outcomeText(a.outcome)}</span>
            </h3>
            <p className="text-[12.5px] text-ink-2">
              {a.means}
              {a.shows > 1 ? `, shown ${a.shows} times` : ''}
              {a.mark ? `; first proof in ${a.mark}` : ''}
              {a.faults.length > 0 ? `; ${a.faults.join(', ').toLowerCase()}` : ''}
            </p>
            <div className="mt-1">
              <Times rules={TIME_RULES} times={a.times} zone={zone} />
            </div>
          </div>
        ))}
        <div className="border-t-2 border-ink bg-card px-3 py-2">
          <h3 className="text-[14px]">The whole visit</h3>
          <div className="mt-1">
            <Times rules={VISIT_TIME_RULES} times={visitTimes} zone={zone} />
          </div>
        </div>
      </div>
    </section>
  );
}

/** Known times one by one; those that are unknown for the same reason together, with that reason. */
function Times<N extends string>({ rules, times, zone }: { rules: Record<N, { label: string; rule: string }>; times: Record<N, Timing>; zone: string }) {
  const names = Object.keys(rules) as N[];
  const why = new Map<string, string[]>();
  for (const name of names) {
    const t = times[name];
    if (!t.known) why.set(t.why, [...(why.get(t.why) ?? []), rules[name].label]);
  }
  return (
    <>
      {names
        .filter((name) => times[name].known)
        .map((name) => (
          <Time key={name} label={rules[name].label} rule={rules[name].rule} timing={times[name]} zone={zone} />
        ))}
      {[...why].map(([reason, labels]) => (
        <p key={reason} className="border-b border-rule-2 py-1.5 text-[12.5px] text-ink-2">
          <b className="font-semibold">{labels.join(', ')}:</b> {reason}
        </p>
      ))}
    </>
  );
}

function Time({ label, rule, timing, zone }: { label: string; rule: string; timing: Timing; zone: string }) {
  const edges = edgesText(timing);
  return (
    <Popover.Root>
      <Popover.Trigger className="flex min-h-[32px] w-full items-center gap-2 border-b border-rule-2 py-0.5 text-left text-[13px]">
        <span className="font-semibold">{label}</span>
        <span className="grow" />
        <span className="text-[12px] text-ink-2">{plusMinusText(timing)}</span>
        <span className={timing.known ? 'num font-semibold' : 'text-ink-2'}>{timing.known ? timingText(timing) : timing.why}</span>
        <span aria-hidden="true" className="num text-ink-2">
          ?
        </span>
      </Popover.Trigger>
      <Floating label={`How ${label} was worked out`} className="w-[min(360px,calc(100vw-24px))] p-3 text-[13px]">
        <p className="font-semibold">
          {label} <span className="num">{timingText(timing)}</span>
        </p>
        <p className="mt-1">From {rule}.</p>
        {timing.known ? (
          <p className="num mt-1">
            {printClock(timing.from.t, zone)} → {printClock(timing.to.t, zone)}
          </p>
        ) : null}
        {edges ? <p className="num mt-1">{edges}</p> : null}
        {timing.known && timing.low_s !== undefined ? <p className="mt-1">At least {timing.low_s.toFixed(0)} s: the end was noticed late.</p> : null}
      </Floating>
    </Popover.Root>
  );
}
