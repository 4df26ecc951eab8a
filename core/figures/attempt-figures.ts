import { lastRequiredAct, meansOf, type TimeName } from '../visit/attempt-times';
import { refusalSide } from '../visit/attempts/outcome';
import { sessionEnergy } from '../visit/delivered';
import type { TimedAttempt, Visit } from '../visit/derive';
import { endedEarly, interruptions, sessionEnd } from '../visit/session-end';
import { span } from '../visit/timing';
import type { Figure } from './figure';
import { yesNo } from './visit-figures';

export type OfAttempt = { attempt: TimedAttempt; visit: Visit };

/** Seconds of a time that ends at the proof; a bound that comes of a missing note is no time, a late look is marked beside. */
const time = (column: string, name: TimeName, definition: string): Figure<OfAttempt> => ({
  column,
  is: 'number',
  unit: 's',
  definition,
  value: ({ attempt: a }) => {
    const t = a.times[name];
    return t.known && (t.bound === 'exact' || a.proof?.late) ? t.s : null;
  },
});

/** kWh of a session where all of it is known. */
const kWhOf = ({ attempt, visit }: OfAttempt): string | null => {
  const energy = attempt.proof ? sessionEnergy(attempt, visit.billed) : undefined;
  return energy && !energy.atLeast ? energy.value : null;
};

/** Whether the handle was stuck after a session; `null` where nobody said and the unplugging was not seen. */
function handleStuck(a: TimedAttempt, visit: Visit): boolean | null {
  if (!a.proof) return null;
  const from = a.proof.place;
  const until = visit.attempts.find((x) => x.n === a.n + 1)?.opened.place ?? Number.POSITIVE_INFINITY;
  const within = visit.line.filter((e) => e.place > from && e.place < until);
  if (within.some((e) => e.kind === 'stuck' || (e.kind === 'fault' && (e.payload.code === 'handle_stuck' || e.payload.code === 'cable_locked')))) return true;
  return a.unplugged ? false : null;
}

/** Every figure of an attempt that comparisons read: one row an attempt. */
export const ATTEMPT_FIGURES = {
  n: { column: 'n', is: 'number', unit: 'count', definition: 'its number in the visit', value: ({ attempt }) => attempt.n },
  stallId: { column: 'stall_id', is: 'id', unit: '', definition: 'the stall', value: ({ attempt }) => attempt.stallId },
  networkId: {
    column: 'network_id',
    is: 'id',
    unit: '',
    definition: 'network of the stall’s site, else of the visit’s',
    inputs: ['stall.siteId', 'site.networkId'],
    value: ({ attempt, visit }, where) => {
      const site = attempt.stallId ? where.stall(attempt.stallId)?.siteId : undefined;
      return (site && where.networkOfSite(site)) ?? (visit.siteId ? where.networkOfSite(visit.siteId) : undefined) ?? null;
    },
  },
  model: {
    column: 'model',
    is: 'text',
    unit: '',
    definition: 'model of the stall',
    inputs: ['stall.model'],
    value: ({ attempt }, where) => (attempt.stallId && where.stall(attempt.stallId)?.model) || null,
  },
  connector: {
    column: 'connector',
    is: 'text',
    unit: '',
    definition: 'connector of the stall, where it has one kind',
    inputs: ['stall.outlets'],
    value: ({ attempt }, where) => {
      const kinds = new Set(attempt.stallId ? where.stall(attempt.stallId)?.connectors : []);
      const [only] = kinds;
      return kinds.size === 1 && only ? only : null;
    },
  },
  meansKind: { column: 'means_kind', is: 'text', unit: '', definition: 'kind of means it ran on', value: ({ attempt }) => meansOf(attempt)?.meansKind ?? null },
  meansId: { column: 'means_id', is: 'id', unit: '', definition: 'the means held', value: ({ attempt }) => meansOf(attempt)?.meansId ?? null },
  adapterId: { column: 'adapter_id', is: 'id', unit: '', definition: 'the adapter', value: ({ attempt }) => attempt.adapterId ?? null },
  openFor: {
    column: 'open_for_s',
    is: 'number',
    unit: 's',
    definition: 'how long it had waited since the last act when it was left without an outcome: no power until then is all that is known',
    value: ({ attempt: a }) => {
      const act = lastRequiredAct(a);
      if (a.outcome.kind !== 'open' || typeof act === 'string' || !a.ended) return null;
      const t = span(act, a.ended.at);
      return t.known && t.s >= 0 ? t.s : null;
    },
  },
  outcome: { column: 'outcome', is: 'text', unit: '', definition: 'power, failed, gave up or open', value: ({ attempt }) => attempt.outcome.kind },
  side: {
    column: 'side',
    is: 'text',
    unit: '',
    definition: 'whose side it failed on, or stopped by a fault on',
    value: ({ attempt: { outcome, ended } }) =>
      outcome.kind === 'failed' || outcome.kind === 'gave_up' ? outcome.side : ended?.by === 'fault' ? (ended.fault?.side ?? null) : null,
  },
  good: {
    column: 'good',
    is: 'text',
    unit: '',
    definition: 'got power and ended as the driver wished',
    value: ({ attempt: a }) => {
      if (a.outcome.kind === 'failed' || a.outcome.kind === 'gave_up') return 'no';
      const end = sessionEnd(a);
      return end === null ? null : yesNo(end === 'wished');
    },
  },
  firstShown: {
    column: 'first_shown',
    is: 'text',
    unit: '',
    definition: 'whether the first showing of the means was accepted',
    value: ({ attempt: a }) => {
      const shown = a.shows[0];
      if (!shown) return null;
      const again = a.shows[1]?.place ?? Number.POSITIVE_INFINITY;
      if (a.refusals.some((r) => r.place > shown.place && r.place <= again)) return 'no';
      // Shown again before anything came of it: not at the first.
      if (a.shows.length > 1 && !(a.accepted && a.accepted.place < again)) return 'no';
      return a.accepted || a.proof ? 'yes' : null;
    },
  },
  refusedBy: {
    column: 'refused_by',
    is: 'text',
    unit: '',
    definition: 'whose side the first refusal of the means was on',
    value: ({ attempt: a }) => (a.refusals[0] ? refusalSide(a.refusals[0].fault) : null),
  },
  sessionEnd: { column: 'session_end', is: 'text', unit: '', definition: 'how the session ended', value: ({ attempt }) => sessionEnd(attempt) },
  early: {
    column: 'early',
    is: 'text',
    unit: '',
    definition: 'ended unasked within 5 min or under 1 kWh',
    value: (of) => yesNo(endedEarly(of.attempt, kWhOf(of))),
  },
  interruptions: {
    column: 'interruptions',
    is: 'number',
    unit: 'count',
    definition: 'times power went away unasked',
    value: ({ attempt }) => interruptions(attempt),
  },
  charging: {
    column: 'charging_s',
    is: 'number',
    unit: 's',
    definition: 'time charging',
    value: ({ attempt: { times } }) => (times.charging.known ? times.charging.s : null),
  },
  pm: {
    column: 'pm_s',
    is: 'number',
    unit: 's',
    definition: '± of its handshake, else of plugging in to power',
    value: ({ attempt: { times } }) => (times.handshake.known ? times.handshake.pm_s : times.plugToPower.known ? times.plugToPower.pm_s : null),
  },
  stuck: {
    column: 'stuck',
    is: 'text',
    unit: '',
    definition: 'whether the handle was stuck when it was to be unplugged',
    value: ({ attempt, visit }) => yesNo(handleStuck(attempt, visit)),
  },
  endMark: { column: 'end_mark', is: 'text', unit: '', definition: 'what showed the power', value: ({ attempt }) => attempt.proof?.mark ?? null },
  late: {
    column: 'late',
    is: 'yes_no',
    unit: '',
    definition: 'power was there already when it was seen',
    value: ({ attempt }) => attempt.proof?.late ?? false,
  },
  handshake: time('handshake_s', 'handshake', 'the driver’s last required act to power'),
  setUp: time('set_up_s', 'setUp', 'later of plugging in and acceptance to power'),
  plugToPower: time('plug_to_power_s', 'plugToPower', 'last plugging in to power'),
  meansToPower: time('means_to_power_s', 'meansToPower', 'first showing to power'),
  handsOn: time('hands_on_s', 'handsOn', 'first act to power'),
} as const satisfies Record<string, Figure<OfAttempt>>;

export type AttemptFigure = keyof typeof ATTEMPT_FIGURES;
