import { meansOf, type TimeName } from '../visit/attempt-times';
import type { TimedAttempt, Visit } from '../visit/derive';
import type { Figure } from './figure';

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
      const site = attempt.stallId ? where.siteOfStall(attempt.stallId) : undefined;
      return (site && where.networkOfSite(site)) ?? (visit.siteId ? where.networkOfSite(visit.siteId) : undefined) ?? null;
    },
  },
  meansKind: { column: 'means_kind', is: 'text', unit: '', definition: 'kind of means it ran on', value: ({ attempt }) => meansOf(attempt)?.meansKind ?? null },
  meansId: { column: 'means_id', is: 'id', unit: '', definition: 'the means held', value: ({ attempt }) => meansOf(attempt)?.meansId ?? null },
  adapterId: { column: 'adapter_id', is: 'id', unit: '', definition: 'the adapter', value: ({ attempt }) => attempt.adapterId ?? null },
  outcome: { column: 'outcome', is: 'text', unit: '', definition: 'power, failed, gave up or open', value: ({ attempt }) => attempt.outcome.kind },
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
