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

/**
 * How well a text answers what was typed: 0 not at all; more is better. Every word typed must begin a word of the text
 * or at least lie in it; the whole name, then its beginning, then beginnings of words count most.
 */
export function findScore(typed: string, text: string): number {
  const want = plainText(typed);
  const has = plainText(text);
  if (want === '') return 0;
  if (has === want) return 100;
  const words = has.split(/[^\p{L}\p{N}]+/u);
  let score = has.startsWith(want) ? 50 : 0;
  for (const w of want.split(/\s+/)) {
    if (words.includes(w)) score += 12;
    else if (words.some((x) => x.startsWith(w))) score += 8;
    else if (has.includes(w)) score += 2;
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
