import { chargingEnd } from './attempt-times';
import { type Attempt, isNoted, type LeaveReason } from './attempts/attempt';
import { countBays } from './bays';
import type { Placed } from './timeline/placed';
import { type Mark, markOf, noTiming, span, sumTimings, type Timing } from './timing';

export type VisitTimes = {
  arrivalToPower: Timing;
  queue: Timing;
  lost: Timing;
  charging: Timing;
  idle: Timing;
  visit: Timing;
  overhead: Timing;
  helpAnswered: Timing;
  helpline: Timing;
};

export const VISIT_TIME_RULES: Record<keyof VisitTimes, { label: string; rule: string }> = {
  arrivalToPower: { label: 'Arrival to power', rule: 'pulled in to the visit’s first proof of power' },
  queue: { label: 'Queue', rule: 'queue joined, or pulled in when no free stall was seen, to stall free or stall chosen; looking for a bay is not queueing' },
  lost: {
    label: 'Lost to faults',
    rule: 'first act of each run of failed or given-up attempts to the first act of the next attempt that gets power, else pulled out; a fault in the charge counts from the fault; queue taken out',
  },
  charging: { label: 'Charging', rule: 'sum over the sessions of proof of power to power gone, else stop pressed, else the ending fault; pauses taken out' },
  idle: { label: 'Idle', rule: 'end of the last session’s charging to unplugged, else pulled out' },
  visit: { label: 'Visit', rule: 'pulled in to pulled out' },
  overhead: { label: 'Overhead', rule: 'the visit less the charging' },
  helpAnswered: { label: 'Helpline answers', rule: 'called to answered, calls added up' },
  helpline: { label: 'Helpline', rule: 'called to the end of the call, calls added up' },
};

const NONE_RECORDED = 'none recorded';

type Of<K extends Placed['kind']> = Extract<Placed, { kind: K }>;
const first = <K extends Placed['kind']>(line: readonly Placed[], kind: K): Of<K> | undefined => line.find((e): e is Of<K> => e.kind === kind && !e.onlySeen);

/** Times of the whole visit. @param line placed events in order @param attempts as cut from the same line @param attemptCharging charging per attempt, same order */
export function visitTimes(line: readonly Placed[], attempts: readonly Attempt[], attemptCharging: readonly Timing[]): VisitTimes {
  const pulledInEvent = first(line, 'pulled_in') ?? line.find((e): e is Of<'pulled_in'> => e.kind === 'pulled_in');
  const pulledOutEvent = first(line, 'pulled_out');
  const pulledIn = pulledInEvent && markOf(pulledInEvent);
  const pulledOut = pulledOutEvent && markOf(pulledOutEvent);
  const noIn = 'pulling in was not recorded';
  const noOut = 'still there, or pulling out was not recorded';
  const visit = !pulledIn ? noTiming(noIn) : !pulledOut ? noTiming(noOut) : span(pulledIn, pulledOut);
  const firstProof = attempts.find((a) => a.proof)?.proof;
  const arrival = !pulledIn ? noTiming(noIn) : !firstProof ? noTiming('no power was seen') : span(pulledIn, firstProof);
  const queue = queueTime(line, pulledInEvent);
  const sessions = attempts.map((a, i) => ({ a, charging: attemptCharging[i] as Timing })).filter((s) => s.a.proof);
  const charging = sumTimings(
    sessions.map((s) => s.charging),
    'no power was seen',
  );
  const noSession = sessions.length === 0 && !attempts.some((a) => a.outcome.kind === 'open');
  return {
    arrivalToPower: arrival.known && firstProof?.late ? { ...arrival, bound: 'at_most' } : arrival,
    queue,
    lost: lostTime(attempts, queue, pulledIn ?? (line[0] && markOf(line[0])), pulledOut, pulledOutEvent?.payload.reason),
    charging,
    idle: idleTime(sessions.at(-1)?.a, line, pulledOut),
    visit,
    ...helplineTimes(line),
    overhead: !visit.known
      ? visit
      : noSession
        ? visit
        : !charging.known
          ? charging
          : {
              ...visit,
              s: visit.s - charging.s,
              pm_s: visit.pm_s + charging.pm_s,
              bound: charging.bound === 'exact' ? 'exact' : charging.bound === 'at_most' ? 'at_least' : 'at_most',
            },
  };
}

/** How long helplines took to answer, and altogether. A call that was never answered counts to its end alone. */
function helplineTimes(line: readonly Placed[]): Pick<VisitTimes, 'helpAnswered' | 'helpline'> {
  const answers: Timing[] = [];
  const calls: Timing[] = [];
  let called: Mark | null = null;
  for (const e of line) {
    if (e.onlySeen) continue;
    if (e.kind === 'help_called') called = markOf(e);
    else if (e.kind === 'help_answered' && called) answers.push(span(called, markOf(e)));
    else if (e.kind === 'help_ended' && called) {
      calls.push(span(called, markOf(e)));
      called = null;
    }
  }
  return { helpAnswered: sumTimings(answers, NONE_RECORDED), helpline: sumTimings(calls, NONE_RECORDED) };
}

/** True when no free stall was seen on arrival: by the count, else by the bays looked at before one was chosen. */
function noneFree(line: readonly Placed[], pulledIn: Of<'pulled_in'> | undefined): boolean {
  const seen = pulledIn?.payload.seen?.free;
  if (seen !== undefined) return seen === 0;
  const survey = first(line, 'survey');
  const chosen = first(line, 'stall_chosen');
  if (!survey || (chosen && chosen.place < survey.place)) return false;
  const bays = countBays(survey.payload.stalls);
  return bays.looked > 0 && bays.free === 0;
}

function queueTime(line: readonly Placed[], pulledIn: Of<'pulled_in'> | undefined): Timing {
  const joined = first(line, 'queue_joined');
  const from = joined ?? (noneFree(line, pulledIn) ? pulledIn : undefined);
  if (!from) return noTiming(NONE_RECORDED);
  const to = line.find((e) => (e.kind === 'stall_free' || e.kind === 'stall_chosen') && !e.onlySeen && e.place > from.place);
  return to ? span(markOf(from), markOf(to)) : noTiming('the end of the queue was not recorded');
}

/** Reasons to leave before anything was tried. */
const NOTHING_TRIED: ReadonlySet<string | undefined> = new Set<LeaveReason | undefined>(['queue', 'price', 'called_away', undefined]);

/** Sums the runs in which nothing worked. A visit without any lost nothing: a known zero; one of which no attempt was noted, nobody knows what. */
function lostTime(attempts: readonly Attempt[], queue: Timing, origin: Mark | undefined, pulledOut: Mark | undefined, left: LeaveReason | undefined): Timing {
  if (!attempts.some(isNoted) && (attempts.length > 0 || !NOTHING_TRIED.has(left))) return noTiming('no attempt was noted');
  const runs: { from: Mark; to: Mark | undefined }[] = [];
  let from: Mark | null = null;
  for (const a of attempts) {
    if (a.proof) {
      if (from) runs.push({ from, to: a.opened });
      from = a.ended?.by === 'fault' ? a.ended.at : null;
    } else if (a.outcome.kind !== 'open') from ??= a.opened;
  }
  if (from) runs.push({ from, to: pulledOut });
  if (!origin) return noTiming('nothing was recorded');
  let total: Extract<Timing, { known: true }> = { known: true, s: 0, pm_s: 0, bound: 'exact', from: origin, to: origin };
  for (const [i, run] of runs.entries()) {
    if (!run.to) return noTiming('the end of the lost time was not recorded');
    const d = span(run.from, run.to);
    if (!d.known) return d;
    const inQueue = queue.known ? Math.max(0, (Math.min(queue.to.t, run.to.t) - Math.max(queue.from.t, run.from.t)) / 1000) : 0;
    total = { ...total, from: i === 0 ? d.from : total.from, to: d.to, s: total.s + d.s - inQueue, pm_s: total.pm_s + d.pm_s };
  }
  return total;
}

function idleTime(last: Attempt | undefined, line: readonly Placed[], pulledOut: Mark | undefined): Timing {
  if (!last) return noTiming('no power was seen');
  const from = chargingEnd(last);
  if (!from) return noTiming('the end of the charge was not recorded');
  // Whichever attempt it fell into: a card shown again after the charge leaves the plug where it is.
  const unplugged = line.find((e) => e.kind === 'unplugged' && !e.onlySeen && e.place >= from.place);
  const to = unplugged ? markOf(unplugged) : pulledOut;
  return to ? span(from, to) : noTiming('unplugging was not recorded');
}
