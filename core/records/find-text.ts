const ASCII = /^[\x20-\x7e]*$/;

/** Letters as they are typed in a hurry: no case, no accents. */
export const plainText = (s: string): string =>
  // Most texts are plain already, and a large household has many.
  ASCII.test(s)
    ? s.toLowerCase().trim()
    : s
        .normalize('NFD')
        .replace(/\p{Diacritic}/gu, '')
        .toLowerCase()
        .replace(/[đł]/g, (c) => (c === 'đ' ? 'd' : 'l'))
        .trim();

/** A text as plain words with one space between: what is compared with what was typed, here as in the database. */
export const findWords = (s: string): string =>
  plainText(s)
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();

/** What each way of answering counts. */
export const FIND_SCORES = { same: 100, begins: 50, word: 12, beginsWord: 8, within: 2 } as const;

/**
 * How well a text answers what was typed: 0 not at all; more is better. Every word typed must begin a word of the text
 * or at least lie in it; the whole name, then its beginning, then beginnings of words count most.
 */
export function findScore(typed: string, text: string): number {
  const want = findWords(typed);
  const has = findWords(text);
  if (want === '') return 0;
  if (has === want) return FIND_SCORES.same;
  const words = has.split(' ');
  let score: number = has.startsWith(want) ? FIND_SCORES.begins : 0;
  for (const w of want.split(' ')) {
    if (words.includes(w)) score += FIND_SCORES.word;
    else if (words.some((x) => x.startsWith(w))) score += FIND_SCORES.beginsWord;
    else if (has.includes(w)) score += FIND_SCORES.within;
    else return 0;
  }
  return score;
}

export type Findable = { text: string; weight?: number };
/** The best `limit` answers, best first; equal ones in the order given. */
export function findBest<T extends Findable>(typed: string, among: readonly T[], limit: number): T[] {
  return among
    .map((item, i) => ({ item, i, score: findScore(typed, item.text) }))
    .filter((x) => x.score > 0)
    .sort((a, b) => b.score + (b.item.weight ?? 0) - a.score - (a.item.weight ?? 0) || a.i - b.i)
    .slice(0, limit)
    .map((x) => x.item);
}
