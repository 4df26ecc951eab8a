import { GROUPINGS, type Group, type Grouping } from '../figures/groupings';
import type { Asked } from '../figures/populations';
import type { CalledBy } from './called';
import { startsOf } from './compared-groups';
import { type CompareSentence, compareSentences } from './sentence';
import type { VisitRow } from './visit-row';
import { waitedStarts } from './waiting-pairs';
import { waitingSentences } from './waiting-sentence';
import { type Watch, watchSentence } from './watch';

/** What the sentences look at: starts at the first try, and who gives power sooner. A pair found needs so many times more evidence. */
export const FIGURES = 2;

/** What groups and sites are called in a sentence. */
export const calledBy = (by: Grouping, nameOf: (g: Group) => string): CalledBy => ({
  one: GROUPINGS[by].one,
  many: GROUPINGS[by].many,
  group: (key) => nameOf({ by, key }),
  site: (key) => nameOf({ by: 'site', key }),
  place: by === 'site' || by === 'stall',
});

/**
 * What the visits show, in sentences no surer than they are; and of each pair on watch what came since. Of months nothing is said: two share none.
 * @param by what is compared, the first of it
 */
export function saidOf(
  visits: readonly VisitRow[],
  by: Grouping,
  { time, mark }: Pick<Asked, 'time' | 'mark'>,
  names: CalledBy,
  watches: readonly Watch[],
): { sentences: CompareSentence[]; watched: { watch: Watch; said: CompareSentence }[] } {
  if (by === 'month') return { sentences: [], watched: [] };
  const [starts, waited] = [startsOf(visits, by), waitedStarts(visits, { time, mark }, by)];
  return {
    sentences: [...compareSentences(starts, names, FIGURES), ...waitingSentences(waited, names, FIGURES)],
    watched: watches.map((watch) => ({ watch, said: watchSentence(watch, starts, waited, names) })),
  };
}
