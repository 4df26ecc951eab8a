import { faultLabel } from '../faults/fault-list';
import type { AttemptFigure } from '../figures/attempt-figures';
import { GROUPINGS, type Grouping, type GroupingFile } from '../figures/groupings';
import { type Asked, type Condition, type On, POPULATIONS, type Population } from '../figures/populations';
import { VISIT_FIGURES, type VisitFigure } from '../figures/visit-figures';
import { TIME_RULES } from '../visit/attempt-times';
import { EARLY_KWH, EARLY_S } from '../visit/session-end';
import { baysCell, type Cell, counted, type Grouped, meanCell, priceCell, rateCell, shareCell, timesCell, visitsIn, waiting } from './cells';
import { repairCell } from './repairs';

/** One thing that is compared. `opens`: the populations of which its cell says a number, each opening its visits. */
export type MeasureFile = {
  label: (asked: Asked) => string;
  /** Second line of its head: what is drawn. */
  under: string;
  /** What it is counted of and how, in words. */
  rule: string;
  opens: readonly Population[];
  /** Figures its cell reads beside those that its populations ask. */
  reads?: { visit?: readonly VisitFigure[]; attempt?: readonly AttemptFigure[] };
  /** Less is better: the order of a sorted table. */
  lessIsBetter?: true;
  cell: (g: Grouped, asked: Asked) => Cell;
};

const SHARE = 'share, 95 % interval';
const MEDIAN = 'median and middle half';

const share = (label: string, yes: Population, no: Population, rule: string, more: { leftOut?: Population; lessIsBetter?: true } = {}) => ({
  label: () => label,
  under: SHARE,
  rule,
  opens: [yes, no, ...(more.leftOut ? [more.leftOut] : [])],
  ...(more.lessIsBetter ? { lessIsBetter: more.lessIsBetter } : {}),
  cell: (g: Grouped, asked: Asked) => shareCell(yes, no, more.leftOut ?? null, g, asked),
});

/** Every fault of some visits, as `code:side`. */
const marksOf = (g: Grouped, asked: Asked): [code: string, side: string][] =>
  visitsIn('attempted', g, asked)
    .flatMap((v) => (v.faultMarks ? v.faultMarks.split(',') : []))
    .map((mark): [string, string] => {
      const at = mark.lastIndexOf(':');
      return [mark.slice(0, at), mark.slice(at + 1)];
    })
    .filter(([, side]) => side !== asked.without);

export const MEASURES = {
  firstTry: share(
    'Starts at the first try',
    'first_yes',
    'first_no',
    'visits whose first attempt got power at its first showing, of those that tried or found no stall to use',
    { leftOut: 'first_left_out' },
  ),
  wait: {
    label: ({ time, mark }) => `${TIME_RULES[time].label} to first ${mark}`,
    under: 'median and middle half of all',
    rule: 'attempts that never got power count as never; seen late, with another end mark or still open is left out',
    opens: ['timed', 'never'],
    lessIsBetter: true,
    cell: (g, asked) => ({ is: 'wait' as const, ...waiting(g.attempts, asked) }),
  },
  lost: {
    label: () => 'Lost per visit',
    under: 'to faults',
    rule: 'mean over the visits where the time lost to faults is known',
    opens: ['lost'],
    lessIsBetter: true,
    cell: (g, asked) => meanCell(visitsIn('lost', g, asked).map((v) => v.lost_s as number)),
  },
  allIn: {
    label: () => 'Paid',
    under: 'price per kWh with fees',
    rule: 'everything paid over everything delivered, where both are known; beneath it how many bills were not those of the prices on file, of those that could be held against one',
    opens: ['priced', 'bill_off', 'bill_checked'],
    reads: { visit: ['hour'] },
    lessIsBetter: true,
    cell: (g, asked) =>
      priceCell(visitsIn('priced', g, asked), asked.currency, { off: counted('bill_off', g, asked), checked: counted('bill_checked', g, asked) }),
  },
  chargeStart: share('Attempts that got power', 'start_yes', 'start_no', 'attempts reaching power, of those that reached it, failed or were given up'),
  session: share('Got power and ended as wished', 'session_yes', 'session_no', 'attempts that got power and ended as the driver wished'),
  end: share('Sessions ended as wished', 'end_yes', 'end_no', 'by an act of the driver or at the level the car was told; of sessions whose end was seen'),
  visit: share('Visits with a charge', 'visit_yes', 'visit_no', 'visits that ended with a charge, of those that are over'),
  authorisation: share('Means accepted at the first showing', 'shown_yes', 'shown_no', 'first showings that were accepted, of those with an answer'),
  early: share('Stopped early', 'early_yes', 'early_no', `ended unasked within ${EARLY_S / 60} min or under ${EARLY_KWH} kWh, of sessions whose end was seen`, {
    lessIsBetter: true,
  }),
  itself: share('Stopped by itself', 'itself_yes', 'itself_no', 'ended by a fault, a power cut or nobody knows why, of sessions whose end was seen', {
    lessIsBetter: true,
  }),
  stuck: share('Handle stuck', 'stuck_yes', 'stuck_no', 'of sessions whose unplugging was seen', { lessIsBetter: true }),
  interruptions: {
    label: () => 'Interruptions',
    under: 'per 100 h charging',
    rule: 'times power went away unasked, over the time charging where it is known',
    opens: ['charged_long'],
    reads: { attempt: ['interruptions', 'charging'] },
    lessIsBetter: true,
    cell: (g) => {
      const long = g.attempts.filter((a) => (a.charging ?? 0) > 0);
      const hours = long.reduce((s, a) => s + (a.charging as number), 0) / 3600;
      return rateCell(Array<string>(long.reduce((s, a) => s + (a.interruptions ?? 0), 0)).fill('interruption'), hours, 'hours');
    },
  },
  faults: {
    label: () => 'Faults and refusals',
    under: 'per 100 visits, by kind',
    rule: 'every fault and refusal noted, over the visits that count for starts; per attempt they would grow with patience',
    opens: ['attempted', 'faulty'],
    reads: { visit: ['faultMarks'] },
    lessIsBetter: true,
    cell: (g, asked) =>
      rateCell(
        marksOf(g, asked).map(([code]) => faultLabel(code)),
        visitsIn('attempted', g, asked).length,
        'visits',
      ),
  },
  sides: {
    label: () => 'Whose side they were on',
    under: 'per 100 visits, by side',
    rule: 'the side is the driver’s guess, noted with the fault',
    opens: ['faulty'],
    reads: { visit: ['faultMarks'] },
    lessIsBetter: true,
    cell: (g, asked) =>
      rateCell(
        marksOf(g, asked).map(([, side]) => side),
        visitsIn('attempted', g, asked).length,
        'visits',
      ),
  },
  outOfOrder: {
    label: () => 'Out of order on arrival',
    under: 'of the bays looked at, 95 % interval',
    rule: 'bays dark or closed of those looked at; looks at one stall are not independent, and as seen by you is not as metered',
    opens: ['looked'],
    reads: { visit: ['baysSeen', 'baysOut'] },
    lessIsBetter: true,
    cell: (g, asked) => baysCell(visitsIn('looked', g, asked)),
  },
  repair: {
    label: () => 'Repaired after, as seen',
    under: 'at least and at most, median',
    rule: 'from the first failure seen at a stall to the last, and from when it last worked to when it next did',
    opens: [],
    reads: { attempt: ['side'] },
    lessIsBetter: true,
    cell: (g) => repairCell(g.visits),
  },
  queue: {
    label: () => 'Queue',
    under: MEDIAN,
    rule: 'visits with a queue that was timed',
    opens: ['queued'],
    lessIsBetter: true,
    cell: (g, asked) => timesCell(visitsIn('queued', g, asked).map((v) => v.queue_s as number)),
  },
  help: {
    label: () => 'Helpline answers after',
    under: MEDIAN,
    rule: 'called to answered, calls of a visit added up',
    opens: ['helped'],
    lessIsBetter: true,
    cell: (g, asked) => timesCell(visitsIn('helped', g, asked).map((v) => v.helpAnswered_s as number)),
  },
  priceSeen: share('Price shown before the start', 'price_yes', 'price_no', 'noted before the first power, or noted to be missing'),
} as const satisfies Record<string, MeasureFile>;
export type Measure = keyof typeof MEASURES;
export type Cells = { [M in Measure]?: ReturnType<(typeof MEASURES)[M]['cell']> };
export const MEASURE_NAMES = Object.keys(MEASURES) as Measure[];

/** What a look at the comparison shows. */
export const LOOKS = {
  starts: { label: 'Starts', measures: ['firstTry', 'wait', 'lost', 'allIn'] },
  charges: { label: 'Charges', measures: ['session', 'end', 'early', 'interruptions'] },
  visits: { label: 'Visits', measures: ['visit', 'chargeStart', 'authorisation', 'priceSeen'] },
  faults: { label: 'Faults', measures: ['faults', 'sides', 'itself', 'stuck'] },
  away: { label: 'Out of order', measures: ['outOfOrder', 'repair', 'queue', 'help'] },
} as const satisfies Record<string, { label: string; measures: readonly Measure[] }>;
export type Look = keyof typeof LOOKS;
export const LOOK_NAMES = Object.keys(LOOKS) as Look[];

type Names = { visit: Set<VisitFigure>; attempt: Set<AttemptFigure> };
function ask(condition: Condition, into: Names): void {
  if ('all' in condition) for (const c of condition.all) ask(c, into);
  else if ('any' in condition) for (const c of condition.any) ask(c, into);
  else if ('attempt' in condition) for (const on of condition.attempt as readonly On<AttemptFigure>[]) into.attempt.add(on.figure);
  else if (!('figure' in condition)) ask(condition.not as Condition, into);
  else if (condition.figure in VISIT_FIGURES) into.visit.add(condition.figure as VisitFigure);
}

/** The figures that these measures and groupings read: no other is fetched. */
export function figuresRead(measures: readonly Measure[], asked: Asked, by: readonly Grouping[]): { visit: VisitFigure[]; attempt: AttemptFigure[] } {
  // What starts and curves above the table are counted with.
  const into: Names = {
    visit: new Set(['firstTry', 'leftOut', 'attemptCount', 'leftReason']),
    attempt: new Set(['n', 'outcome', 'stallId', 'meansKind', 'pm', 'openFor']),
  };
  for (const population of ['attempted', 'billed_noted', 'timed', 'never'] as const) ask(POPULATIONS[population].who(asked), into);
  for (const name of by) {
    const g: GroupingFile = GROUPINGS[name];
    if ('attempt' in g) into.attempt.add(g.attempt);
    else if (g.visit in VISIT_FIGURES) into.visit.add(g.visit as VisitFigure);
  }
  for (const name of measures) {
    const { opens, reads }: MeasureFile = MEASURES[name];
    for (const population of opens) ask(POPULATIONS[population].who(asked), into);
    for (const f of reads?.visit ?? []) into.visit.add(f);
    for (const f of reads?.attempt ?? []) into.attempt.add(f);
  }
  return { visit: [...into.visit], attempt: [...into.attempt] };
}
