import * as z from '@/core/units/schema';
import { line, maybe, maybeDay, name, text, uuid } from './field-schema';

/** What is held against each other in a trial. */
export const TRIAL_KINDS = ['stall', 'network', 'means'] as const;
/** Sides by their letters, in the order in which they were planned. */
export const SIDE_LETTERS = ['a', 'b', 'c', 'd'] as const;
export type SideLetter = (typeof SIDE_LETTERS)[number];
/** From what to what a round is timed. Those of the comparisons. */
export const TRIAL_TIMES = ['handshake', 'setUp', 'plugToPower', 'meansToPower', 'handsOn'] as const;
export const MOST_ROUNDS = 30;
export const MOST_SEED = 9999;
/** Characters of a trial's name and of what a side is called. */
export const NAME_MAX = 120;
export const LABEL_MAX = 80;

const side = z.object({
  /** Id of the stall or network, or the kind of means. */
  key: line(80).check(z.minLength(1, 'Choose what is tried')),
  label: name(LABEL_MAX, 'Say what it is called'),
  /** Where it is tried, as far as it is known beforehand. */
  siteId: maybe(uuid),
});

/** The plan of a head-to-head: what is tried, how often, in which order, timed how. */
export const trialSchema = z
  .object({
    name: name(NAME_MAX, 'Name the trial'),
    kind: z.enum(TRIAL_KINDS),
    sides: z.array(side).check(z.minLength(2, 'At least two'), z.maxLength(SIDE_LETTERS.length, 'At most four')),
    rounds: z.int('A whole number of rounds').check(z.minimum(1, 'At least one round'), z.maximum(MOST_ROUNDS, `At most ${MOST_ROUNDS} rounds`)),
    /** The order within each round is drawn by lot from it. */
    seed: z.int('A whole number').check(z.minimum(1, 'At least 1'), z.maximum(MOST_SEED, `At most ${MOST_SEED}`)),
    time: z.enum(TRIAL_TIMES),
    mark: z.enum(['A', 'kW', 'kWh']),
    observers: z.int('One or two').check(z.minimum(1, 'One or two'), z.maximum(2, 'One or two')),
    heldEqual: text(300),
    endedOn: maybeDay,
  })
  .check(
    z.superRefine((t, ctx) => {
      const keys = t.sides.map((s) => s.key);
      if (new Set(keys).size < keys.length) ctx.addIssue({ code: 'custom', path: ['sides'], message: 'Each of them once' });
    }),
  );
export type TrialPlan = z.infer<typeof trialSchema>;

/** What a side is called; a letter that the plan has not is itself. */
export const sideLabel = ({ sides }: Pick<TrialPlan, 'sides'>, side: string): string => sides[(SIDE_LETTERS as readonly string[]).indexOf(side)]?.label ?? side;
