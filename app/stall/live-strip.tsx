'use client';
import { type ReactNode, useEffect, useState } from 'react';
import { phoneNow } from '@/client/touch/touch-time';
import { SILENT_S } from '@/client/visit-session/visit-here';
import { mayLookOn, mayRecord, refusedTo } from '@/core/records/roles';
import { printCount } from '@/core/units/print';
import { dueNow, limitText, matterNow } from '@/core/visit/matter';
import type { StayClock } from '@/core/visit/stay-clocks';
import { useAlarmSound } from './alarm-sound';
import type { Live, LiveFacts } from './live-facts';
import { paidBy } from './live-pads';
import type { Open } from './open-sheet';
import type { Draft, StallHands } from './stall-state';

type Props = { state: Live; facts: LiveFacts; hands: StallHands; act: (timeStamp: number, ...drafts: Draft[]) => void; onOpen: (open: Open) => void };

/**
 * The one strip above the pads: the gravest matter there is, and what to do about it. Danger, then what hinders the
 * record itself, then a fee that is near, what is asked, and what comes next. Everything else opens from it.
 */
export function LiveStrip({ state, facts, hands, act, onOpen }: Props) {
  const { visit } = state;
  const [at, setAt] = useState(phoneNow);
  const [answered, setAnswered] = useState<ReadonlySet<string>>(new Set());
  useEffect(() => {
    const timer = setInterval(() => setAt(phoneNow()), 1000);
    return () => clearInterval(timer);
  }, []);
  useAlarmSound(facts.alarms, at);
  const [problem, setProblem] = useState<string | null>(null);
  const matter = matterNow({ inDanger: facts.inDanger, clocks: facts.clocks, alarms: facts.alarms, answered }, at);
  const answer = (key: string, then?: (timeStamp: number) => void) => (t: number) => {
    setAnswered((before) => new Set([...before, key]));
    then?.(t);
  };

  if (matter?.is === 'danger')
    return (
      <Strip name="Danger" bad text="Danger was reported here. Touch nothing.">
        <Do onPress={(t) => onOpen({ sheet: 'danger', at: t })}>Who to call</Do>
      </Strip>
    );
  if (state.cannotKeep) return <NotKept state={state} why={state.cannotKeep} />;
  // Told once in words too, for who hears the screen: the countdown itself is silent.
  const told = dueNow(facts.alarms, at).find((a) => a.ask === undefined)?.text;
  const limit =
    matter?.is === 'limit' ? (
      <>
        <Limit clock={matter.clock} near={matter.near} at={at} onOpen={onOpen} />
        <span role="alert" className="sr-only">
          {told}
        </span>
      </>
    ) : null;
  if (matter?.is === 'limit' && matter.near) return limit;
  if (visit.withdrawn) {
    const { joinedInto } = visit;
    return (
      <Strip
        name="This visit is withdrawn"
        text={
          problem ??
          (joinedInto ? 'This recording was joined into another. What you record here follows there.' : 'This visit was withdrawn: it counts nowhere.')
        }
      >
        <Do
          onPress={(t) =>
            joinedInto
              ? void hands.openVisit(joinedInto).then(setProblem)
              : act(t, ...visit.visitWithdrawals.map((target): Draft => ({ kind: 'withdrawal', payload: { target } })))
          }
        >
          {joinedInto ? 'Go on there' : 'Restore the visit'}
        </Do>
      </Strip>
    );
  }
  // Since this visit began somebody was given another role here.
  const refused = state.observing && mayLookOn(state.who.role) ? null : refusedTo(state.who.role);
  if (refused) return <Strip name="Who records" text={`${refused}. What you tap stays on this phone.`} />;
  if (matter?.is === 'stopped')
    return (
      <Strip name="Alarm" text={matter.alarm.text}>
        <Do onPress={answer(matter.alarm.key, (t) => onOpen({ sheet: 'reading', at: t }))}>Still charging</Do>
        <Do onPress={answer(matter.alarm.key, (t) => onOpen({ sheet: 'gone', at: t }))}>It has stopped</Do>
      </Strip>
    );
  const { silent_s: silent } = state;
  if (silent !== null && silent >= SILENT_S && visit.pulledOutAt === null && mayRecord(state.who.role))
    return (
      <Strip name="Who records" text={`The phone that records has been silent${Number.isFinite(silent) ? ` for ${Math.floor(silent / 60)} min` : ''}.`}>
        <Do onPress={() => void hands.takeOver()}>This phone records now</Do>
      </Strip>
    );
  if (facts.waitsForAnswer)
    return (
      <Strip name="The answer" text="What did the stall say?">
        <Do onPress={(t) => act(t, { kind: 'means_accepted', payload: paidBy(facts.means) })}>Accepted</Do>
        <Do bad onPress={(t) => act(t, { kind: 'means_refused', payload: paidBy(facts.means) })}>
          Refused
        </Do>
      </Strip>
    );
  if (matter?.is === 'reading')
    return (
      <Strip name="Alarm" text={matter.alarm.text}>
        <Do onPress={answer(matter.alarm.key, (t) => onOpen({ sheet: 'reading', at: t }))}>Read it</Do>
        <Do onPress={answer(matter.alarm.key)}>Not now</Do>
      </Strip>
    );
  // A stall that somebody looking on chose is none of the recorder's: the phone that records names the place.
  if (visit.siteId === null && !state.observing && matter === null && mayRecord(state.who.role))
    return (
      <Strip name="The place" text="This place has no name yet.">
        <Do onPress={(t) => onOpen({ sheet: 'place', at: t })}>Name it</Do>
      </Strip>
    );
  return limit;
}

function Limit({ clock, at, near, onOpen }: { clock: StayClock; at: number; near: boolean; onOpen: (open: Open) => void }) {
  const { words, time, past } = limitText(clock, at);
  return (
    <button
      type="button"
      aria-label={`Limits of the stay: ${words} ${time}`}
      onClick={(e) => onOpen({ sheet: 'stay', at: e.timeStamp })}
      className={`flex min-h-[44px] w-full items-center gap-2 border-b-2 border-ink px-4 py-1 text-left ${near ? 'bg-picked' : 'bg-card'}`}
    >
      <span className={`grow ${near ? 'text-[16px] font-bold' : 'text-[14px] font-semibold text-ink-2'}`}>{words}</span>
      <span className={`num text-[20px] font-semibold ${past ? 'text-fault' : ''}`}>{time}</span>
    </button>
  );
}

function Strip({ name, text, bad = false, children }: { name: string; text: string; bad?: boolean; children?: ReactNode }) {
  return (
    <section
      role="alert"
      aria-label={name}
      className={`flex min-h-[52px] flex-wrap items-center gap-x-3 gap-y-1 border-b-2 px-4 py-1 ${bad ? 'border-fault bg-fault-card' : 'border-ink bg-picked'}`}
    >
      <p className="min-w-[84px] grow basis-0 text-[15px] font-bold leading-tight">{text}</p>
      <div className="flex gap-2">{children}</div>
    </section>
  );
}

function Do({ children, onPress, bad = false }: { children: ReactNode; onPress: (timeStamp: number) => void; bad?: boolean }) {
  return (
    <button type="button" className={`plate !min-h-[44px] !px-3 ${bad ? 'plate-bad' : ''}`} onClick={(e) => onPress(e.timeStamp)}>
      {children}
    </button>
  );
}

/** Said at once when the phone cannot write down what is recorded. */
function NotKept({ state, why }: { state: Live; why: string }) {
  const { inMemory = 0, photos = 0 } = state.outbox ?? {};
  const things = [inMemory > photos ? printCount(inMemory - photos, 'event') : '', photos > 0 ? printCount(photos, 'picture') : ''].filter(Boolean);
  return (
    <div role="alert" className="border-b-2 border-fault bg-fault-card px-4 py-1.5 text-[13.5px] leading-tight">
      <b>This phone cannot keep what you record: {why}.</b>{' '}
      {inMemory > 0
        ? `${things.join(' and ')} ${inMemory === 1 ? 'is' : 'are'} held in this page only. Do not close it before the corner says all sent.`
        : 'What you record is held in this page and sent at once. Do not close it while anything waits.'}
    </div>
  );
}
