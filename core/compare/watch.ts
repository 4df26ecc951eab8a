import * as z from '@/core/units/schema';
import { GROUPING_NAMES, GROUPINGS, type Grouping } from '../figures/groupings';
import { ID_PATTERN, NOT_AN_ID } from '../units/id';
import { type CalledBy, called, countedText, sitesOnly } from './called';
import { visitsToTell } from './more-visits';
import { pairDegree } from './pair-degree';
import type { CompareSentence } from './sentence';
import { shareWorking } from './share-working';
import type { Start } from './start';
import type { Waited } from './waiting-pairs';
import { watchedWaiting } from './waiting-sentence';

/** What a pair is watched for. */
export const WATCHED = { first_try: 'who starts at the first try more often', waiting: 'who gives power sooner' } as const;
export type Watched = keyof typeof WATCHED;
export const WATCHED_NAMES = Object.keys(WATCHED) as [Watched, ...Watched[]];

/** A pair that somebody put on watch: what came before tells nothing, what comes after is held to no more than one pair is. */
export type Watch = { id: string; by: Grouping; a: string; b: string; figure: Watched; since: number };
/** A pair on watch where its names are not at hand: `Two sites on watch for who gives power sooner`. */
export const watchWords = ({ by, figure }: Pick<Watch, 'by' | 'figure'>): string => `Two ${GROUPINGS[by].many} on watch for ${WATCHED[figure]}`;

/** Pairs on watch at once: with more, some of them would be found, not watched. */
export const MOST_WATCHED = 6;

const id = () => z.string().check(z.regex(ID_PATTERN, NOT_AN_ID));
const key = () => z.string().check(z.minLength(1), z.maxLength(80));
/** What the page sends. The moment from which a pair is watched is the server's. */
export const watchForm = z.object({ id: id(), by: z.enum(GROUPING_NAMES as [Grouping, ...Grouping[]]), a: key(), b: key(), figure: z.enum(WATCHED_NAMES) });
export const endForm = z.object({ id: id() });

/**
 * What the visits since then say of a pair on watch. The one with more is named first once it is told; until then in the order they were put.
 * @param starts of all groups, from the watch on and before @param waited likewise
 */
export function watchSentence(watch: Watch, starts: readonly Start[], waited: readonly Waited[], names: CalledBy): CompareSentence {
  const { a, b, since } = watch;
  const from = <T extends { group: string; at: number }>(all: readonly T[]) => all.filter((s) => s.at >= since && (s.group === a || s.group === b));
  if (watch.figure === 'waiting') return watchedWaiting(from(waited), a, b, names);
  const mine = from(starts);
  const pair = pairDegree(
    mine.filter((s) => s.group === a),
    mine.filter((s) => s.group === b),
    1,
  );
  if (!pair) {
    const none = [a, b].filter((g) => !mine.some((s) => s.group === g)).map(names.group);
    return { kind: 'cannot_tell', text: `Cannot tell yet: no start at ${none.join(' or ')} since.`, working: [] };
  }
  const working = shareWorking(pair, 1, mine, names);
  if (pair.degree !== 'cannot_tell') {
    const bySites = !names.place && (pair.better.bySites || pair.worse.bySites);
    return {
      kind: pair.degree,
      text: `${called(pair.better, names)} ${pair.degree} started at the first try more often than ${called(pair.worse, names)}: ${countedText(pair.better.counted)} against ${countedText(pair.worse.counted)}.${bySites ? ` ${sitesOnly(names.one)}` : ''}`,
      working,
    };
  }
  const more = visitsToTell(pair.better.counted, pair.worse.counted, 1);
  const ahead = more === null ? '' : ` Going on like this, some ${more} more ${more === 1 ? 'visit' : 'visits'} to each would probably tell.`;
  return {
    kind: 'cannot_tell',
    text: `Cannot tell yet which starts more often at the first try: ${names.group(pair.better.group)} at ${countedText(pair.better.counted)}, ${names.group(pair.worse.group)} at ${countedText(pair.worse.counted)}.${ahead}`,
    working,
  };
}
