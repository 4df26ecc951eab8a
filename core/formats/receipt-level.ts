import type { ReceiptWhy } from './receipt-figures';

/** The battery by a screen, whole per cents: where the charge began, where that is told too, and where it stands. `line`: of the text, where it was read. */
export type LevelRead = { from: number | null; to: number; line: number } | { why: ReceiptWhy };

/** What a screen calls the battery, in the languages that receipts are read in. Common practice, no source. */
const BATTERY =
  /(?<!\p{L})(?:battery|batterie|batteria|batería|baterija|baterije|akku|accu|akumulator|soc|state of charge|ladestand|ladezustand|charge level|stato di carica)(?!\p{L})/iu;
/** Per cents of money are none of a battery. */
const OF_MONEY = /(?<!\p{L})(?:vat|tax|mwst|ust|iva|tva|ddv|btw|mva|discount|rabatt|sconto|popust|fee|service)(?!\p{L})/iu;
const LEVEL = /(?<![\p{L}\p{N}.,])(\d{1,3})(?:[.,]\d)?\s*%/gu;
const ALONE = /^\s*\d{1,3}\s*%\s*$/u;
const TO = /\d\s*%?\s*(?:→|->|–|—|-|to|bis|a|à|do|naar)\s*\d/iu;

const levelsOf = (text: string): number[] => [...text.matchAll(LEVEL)].map((m) => Number(m[1])).filter((n) => n <= 100);

/**
 * Reads the level of the battery off the text of a screen: beside what calls it that, else a per cent that stands on a line alone. Two that differ are not chosen from, save
 * from one to the other on one line.
 */
export function readLevel(text: string): LevelRead {
  const lines = text.split(/\r\n|\r|\n/).map((line, i, all) => {
    const label = levelsOf(all[i - 1] ?? '').length === 0 ? (all[i - 1] ?? '') : '';
    // A label without a figure speaks of the next line.
    return { line, i, money: OF_MONEY.test(line) || OF_MONEY.test(label), named: BATTERY.test(line) || BATTERY.test(label) };
  });
  const ofMoney = new Set(lines.flatMap((l) => (l.money ? levelsOf(l.line) : [])));
  const usable = lines.filter((l) => !l.money && levelsOf(l.line).length > 0);
  const named = usable.filter((l) => l.named);
  const told = named.length > 0 ? named : usable.filter((l) => ALONE.test(l.line) && !ofMoney.has(levelsOf(l.line)[0] as number));
  const read = told.map(({ line, i }) => ({ levels: levelsOf(line), between: TO.test(line), i }));
  const [first] = read;
  if (!first) return { why: 'not_printed' };
  const ends = read.map((r) => r.levels.at(-1));
  if (new Set(ends).size > 1 || (first.levels.length > 1 && !first.between)) return { why: 'several' };
  const [from, to] = first.levels.length > 1 ? [first.levels[0] as number, first.levels.at(-1) as number] : [null, first.levels[0] as number];
  return from !== null && from > to ? { why: 'form' } : { from, to, line: first.i };
}
