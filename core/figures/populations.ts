import type { Side } from '../faults/fault-list';
import type { EndMark } from '../visit/attempts/attempt';
import type { AttemptFigure } from './attempt-figures';
import type { Value } from './figure';
import { GROUPINGS, type Group, type GroupingFile, type VisitKey } from './groupings';
import type { VisitFigure } from './visit-figures';

/** A condition on figures, as data: core holds rows to it and the server asks it of the database, so that a count and the list behind it cannot differ. */
export type On<Name> = { figure: Name } & ({ is: readonly (string | boolean | number)[] } | { isNot: readonly string[] } | { known: true } | { above: number });
export type Condition =
  | On<VisitFigure | VisitKey>
  | { attempt: readonly On<AttemptFigure>[] }
  | { any: readonly Condition[] }
  | { all: readonly Condition[] }
  | { not: Condition };

/** Definitions of "how long until power" that can be compared; kept apart, never mixed. */
export const POWER_TIMES = ['handshake', 'setUp', 'plugToPower', 'meansToPower', 'handsOn'] as const satisfies readonly AttemptFigure[];
export type PowerTime = (typeof POWER_TIMES)[number];

/** What the numbers of a comparison are asked with. `without`: the side whose failures are left out; `groups`: within these. */
export type Asked = { time: PowerTime; mark: EndMark; currency: string; without?: Side; groups?: readonly Group[] };

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
/** Failed on another side than the one that is left out; without one, all. */
const ofSide = (side: Side | undefined): Condition[] => (side ? [{ figure: 'firstSide', isNot: [side] }] : []);
const failedOn = (side: Side | undefined): On<AttemptFigure>[] => (side ? [{ figure: 'side', isNot: [side] }] : []);

/** The key of a group as its figure has it. */
const valueOf = ({ by, key }: Group): string | number => (by === 'hour' ? Number(key) : key);
const isFile = (by: Group['by']): GroupingFile => GROUPINGS[by];

/** A visit lies in these groups; by what an attempt has, its first one does. */
export const inGroups = (groups: readonly Group[]): Condition[] =>
  groups.map((g): Condition => {
    const file = isFile(g.by);
    return 'visit' in file
      ? { figure: file.visit, is: [valueOf(g)] }
      : {
          attempt: [
            { figure: 'n', is: [1] },
            { figure: file.attempt, is: [valueOf(g)] },
          ],
        };
  });

/** A population of whole visits. */
const visits = (label: string, who: (asked: Asked) => Condition) => ({
  label,
  of: 'visits' as const,
  who: (asked: Asked): Condition => compared(...inGroups(asked.groups ?? []), who(asked)),
});
/** A population of attempts: the visits that have one. `on`: what each of them meets. */
const attempts = (label: string, on: (asked: Asked) => readonly On<AttemptFigure>[]) => ({
  label,
  of: 'attempts' as const,
  on,
  who: (asked: Asked): Condition => {
    const groups = (asked.groups ?? []).map((g) => ({ g, file: isFile(g.by) }));
    return compared(...groups.flatMap(({ g, file }): Condition[] => ('visit' in file ? [{ figure: file.visit, is: [valueOf(g)] }] : [])), {
      attempt: [...on(asked), ...groups.flatMap(({ g, file }) => ('attempt' in file ? [{ figure: file.attempt, is: [valueOf(g)] }] : []))],
    });
  },
});
const is = <Name>(figure: Name, ...values: (string | boolean)[]): On<Name> => ({ figure, is: values });

/** Which visits each number of a comparison is counted from, with what the list of them is called. */
export const POPULATIONS = {
  attempted: visits('that count for starts', () => TRIED),
  first_yes: visits('started at the first try', () => is('firstTry', 'yes')),
  first_no: visits('did not start at the first try', ({ without }) => ({ all: [is('firstTry', 'no'), ...ofSide(without)] })),
  first_left_out: visits('left out of the first try', () => ({ all: [TRIED, is('firstTry', 'left_out')] })),
  timed: attempts('with a timed start', timedBy),
  never: attempts('with an attempt that never got power', () => NEVER),
  lost: visits('lost time known', () => ({ all: [TRIED, { figure: 'lost_s', known: true }] })),
  priced: visits('in the price per kWh with fees', ({ currency }) => ({
    all: [{ figure: 'paid', known: true }, { figure: 'deliveredKWh', known: true }, is('currency', currency)],
  })),
  start_yes: attempts('with an attempt that got power', () => [is('outcome', 'power')]),
  start_no: attempts('with an attempt that failed or was given up', ({ without }) => [...NEVER, ...failedOn(without)]),
  end_yes: attempts('with a session that ended as wished', () => [is('sessionEnd', 'wished')]),
  end_no: attempts('with a session that ended otherwise', ({ without }) => [is('sessionEnd', 'limit', 'other', 'itself'), ...failedOn(without)]),
  session_yes: attempts('with an attempt that got power and ended as wished', () => [is('good', 'yes')]),
  session_no: attempts('with an attempt that did not, or ended otherwise', ({ without }) => [is('good', 'no'), ...failedOn(without)]),
  visit_yes: visits('ended with a charge', () => ({ all: [TRIED, is('ended', 'charge')] })),
  visit_no: visits('ended without one', () => ({ all: [TRIED, is('ended', 'none')] })),
  shown_yes: attempts('with a first showing that was accepted', () => [is('firstShown', 'yes')]),
  shown_no: attempts('with a first showing that was refused or had to be repeated', ({ without }) => [
    is('firstShown', 'no'),
    ...(without ? [{ figure: 'refusedBy' as const, isNot: [without] }] : []),
  ]),
  early_yes: attempts('with a session that stopped early', ({ without }) => [is('early', 'yes'), ...failedOn(without)]),
  early_no: attempts('with a session that did not', () => [is('early', 'no')]),
  itself_yes: attempts('with a session that stopped by itself', ({ without }) => [is('sessionEnd', 'itself'), ...failedOn(without)]),
  itself_no: attempts('with a session that ended otherwise', () => [is('sessionEnd', 'wished', 'limit', 'other')]),
  stuck_yes: attempts('with a stuck handle', () => [is('stuck', 'yes')]),
  stuck_no: attempts('unplugged without trouble', () => [is('stuck', 'no')]),
  charged_long: attempts('with a known time charging', () => [{ figure: 'charging', above: 0 }]),
  price_yes: visits('with a price seen before the start', () => is('priceBefore', 'yes')),
  price_no: visits('where no price was shown before the start', () => is('priceBefore', 'no')),
  looked: visits('with a look at the bays on arrival', () => ({ figure: 'baysSeen', above: 0 })),
  faulty: visits('with a fault or refusal', () => ({ all: [TRIED, { figure: 'faultCount', above: 0 }] })),
  queued: visits('with a timed queue', () => ({ figure: 'queue_s', known: true })),
  helped: visits('with a timed answer of the helpline', () => ({ figure: 'helpAnswered_s', known: true })),
  bill_off: visits('with a bill that is not that of the price on file', () => is('billCheck', 'off')),
  bill_checked: visits('with a bill that was held against a price on file', () => is('billCheck', 'off', 'right')),
  billed: visits('charged and billed', () => ({ all: [is('ended', 'charge'), { figure: 'paid', known: true }] })),
  billed_noted: visits('charged and billed, with the start recorded', () => ({
    all: [is('ended', 'charge'), { figure: 'paid', known: true }, is('noted', true)],
  })),
} as const satisfies Record<string, ReturnType<typeof visits> | ReturnType<typeof attempts>>;
export type Population = keyof typeof POPULATIONS;
export const POPULATION_NAMES = Object.keys(POPULATIONS) as Population[];

/** The figures of a visit, as far as a condition asks for them, with those of its attempts. */
export type Row = { readonly [K in VisitFigure | VisitKey]?: Value } & { attempts: readonly { readonly [K in AttemptFigure]?: Value }[] };

type Test<Of> = (of: Of) => boolean;

function testOf<Name extends string>(on: On<Name>): Test<{ readonly [K in Name]?: Value }> {
  const { figure } = on;
  if ('is' in on) {
    const [only, ...more] = on.is;
    return more.length === 0 ? (row) => row[figure] === only : (row) => on.is.includes(row[figure] as string | boolean);
  }
  if ('isNot' in on) return (row) => !on.isNot.includes(row[figure] as string);
  if ('known' in on) return (row) => (row[figure] ?? null) !== null;
  return (row) => Number(row[figure] ?? Number.NaN) > on.above;
}

/** All of some tests as one; ten thousand rows are asked, so that two and three are asked without a list. */
function every<Of>(tests: readonly Test<Of>[]): Test<Of> {
  const [a, b, c, ...more] = tests;
  if (!a) return () => true;
  if (!b) return a;
  if (!c) return (of) => a(of) && b(of);
  if (more.length === 0) return (of) => a(of) && b(of) && c(of);
  const rest = every(more);
  return (of) => a(of) && b(of) && c(of) && rest(of);
}

/** Whether an attempt meets all of these. Made once, asked of many. */
export const attemptTest = (all: readonly On<AttemptFigure>[]): Test<Row['attempts'][number]> => every(all.map(testOf));

/** Whether a condition holds for a visit. Made once, asked of many. */
export function visitTest(condition: Condition): Test<Row> {
  if ('any' in condition) {
    const none = every(condition.any.map((c): Test<Row> => visitTest({ not: c })));
    return (row) => !none(row);
  }
  if ('all' in condition) return every(condition.all.map(visitTest));
  if ('not' in condition) {
    const test = visitTest(condition.not);
    return (row) => !test(row);
  }
  if ('attempt' in condition) {
    const test = attemptTest(condition.attempt);
    return ({ attempts }) => {
      for (let i = 0; i < attempts.length; i++) if (test(attempts[i] as Row['attempts'][number])) return true;
      return false;
    };
  }
  return testOf(condition);
}
