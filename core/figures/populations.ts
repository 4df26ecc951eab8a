import type { Side } from '../faults/fault-list';
import type { EndMark } from '../visit/attempts/attempt';
import type { AttemptFigure } from './attempt-figures';
import type { Value } from './figure';
import type { VisitFigure } from './visit-figures';

/** A condition on figures, as data: core holds rows to it and the server asks it of the database, so that a count and the list behind it cannot differ. */
export type On<Name> = { figure: Name } & ({ is: readonly (string | boolean)[] } | { known: true } | { above: number });
export type Condition =
  | On<VisitFigure>
  | { attempt: readonly On<AttemptFigure>[] }
  | { any: readonly Condition[] }
  | { all: readonly Condition[] }
  | { not: Condition };

/** Definitions of "how long until power" that can be compared; kept apart, never mixed. */
export const POWER_TIMES = ['handshake', 'setUp', 'plugToPower', 'meansToPower', 'handsOn'] as const satisfies readonly AttemptFigure[];
export type PowerTime = (typeof POWER_TIMES)[number];

/** What the numbers of a comparison are asked with. `without`: the side whose failures are left out. */
export type Asked = { time: PowerTime; mark: EndMark; currency: string; without?: Side };

/** Of an attempt that never got power: beyond every time. */
export const NEVER: readonly On<AttemptFigure>[] = [{ figure: 'outcome', is: ['failed', 'gave_up'] }];
/** Of an attempt whose wait counts by this definition and end mark. */
export const timedBy = ({ time, mark }: Pick<Asked, 'time' | 'mark'>): readonly On<AttemptFigure>[] => [
  { figure: 'outcome', is: ['power'] },
  { figure: 'late', is: [false] },
  { figure: 'endMark', is: [mark] },
  { figure: time, known: true },
];

/** Somebody tried, found nothing to try, or left before trying. A receipt typed in says nothing of starts. */
const TRIED: Condition = {
  any: [
    { figure: 'attemptCount', above: 0 },
    { figure: 'firstTry', is: ['no'] },
    { figure: 'leftReason', is: ['queue', 'price'] },
  ],
};
const COMPARED: Condition = { figure: 'leftOut', is: [false] };
const compared = (...all: Condition[]): Condition => ({ all: [COMPARED, ...all] });
const ofSide = (side: Side | undefined): Condition[] =>
  side
    ? [
        {
          not: {
            all: [
              { figure: 'firstTry', is: ['no'] },
              { figure: 'firstSide', is: [side] },
            ],
          },
        },
      ]
    : [];

/** Which visits each number of a comparison is counted from, with what the list of them is called. */
export const POPULATIONS = {
  attempted: { label: 'that count for starts', who: () => compared(TRIED) },
  first_yes: { label: 'started at the first try', who: ({ without }) => compared({ figure: 'firstTry', is: ['yes'] }, ...ofSide(without)) },
  first_no: { label: 'did not start at the first try', who: ({ without }) => compared({ figure: 'firstTry', is: ['no'] }, ...ofSide(without)) },
  first_left_out: { label: 'left out of the first try', who: () => compared(TRIED, { figure: 'firstTry', is: ['left_out'] }) },
  timed: { label: 'with a timed start', who: (asked) => compared({ attempt: timedBy(asked) }) },
  never: { label: 'with an attempt that never got power', who: () => compared({ attempt: NEVER }) },
  lost: { label: 'lost time known', who: () => compared(TRIED, { figure: 'lost_s', known: true }) },
  priced: {
    label: 'in the price per kWh with fees',
    who: ({ currency }) => compared({ figure: 'paid', known: true }, { figure: 'deliveredKWh', known: true }, { figure: 'currency', is: [currency] }),
  },
} as const satisfies Record<string, { label: string; who: (asked: Asked) => Condition }>;
export type Population = keyof typeof POPULATIONS;
export const POPULATION_NAMES = Object.keys(POPULATIONS) as Population[];

/** The figures of a visit, as far as a condition asks for them, with those of its attempts. */
export type Row = { readonly [K in VisitFigure]?: Value } & { attempts: readonly { readonly [K in AttemptFigure]?: Value }[] };

type Test<Of> = (of: Of) => boolean;

function testOf<Name extends string>(on: On<Name>): Test<{ readonly [K in Name]?: Value }> {
  const { figure } = on;
  if ('is' in on) {
    const [only, ...more] = on.is;
    return more.length === 0 ? (row) => row[figure] === only : (row) => on.is.includes(row[figure] as string | boolean);
  }
  if ('known' in on) return (row) => (row[figure] ?? null) !== null;
  return (row) => Number(row[figure] ?? Number.NaN) > on.above;
}

/** Whether an attempt meets all of these. Made once, asked of many. */
export function attemptTest(all: readonly On<AttemptFigure>[]): Test<Row['attempts'][number]> {
  const tests = all.map(testOf);
  return (attempt) => tests.every((test) => test(attempt));
}

/** Whether a condition holds for a visit. Made once, asked of many. */
export function visitTest(condition: Condition): Test<Row> {
  if ('any' in condition) {
    const tests = condition.any.map(visitTest);
    return (row) => tests.some((test) => test(row));
  }
  if ('all' in condition) {
    const tests = condition.all.map(visitTest);
    return (row) => tests.every((test) => test(row));
  }
  if ('not' in condition) {
    const test = visitTest(condition.not);
    return (row) => !test(row);
  }
  if ('attempt' in condition) {
    const test = attemptTest(condition.attempt);
    return (row) => row.attempts.some(test);
  }
  return testOf(condition);
}
