import { plainText } from '../records/find-text';
import further from './receipt-further-words.json';
import words from './sheet-words.json';

type ReceiptWord = keyof typeof words.receipt;
/** A line of a receipt with what it speaks of; letters that a reader takes for figures are figures where they stand in one. */
export type ReceiptLine = { text: string; has: (word: ReceiptWord) => boolean };

/** Words, and as a reader of pictures that knows no accents tells them. */
const withPlain = (all: readonly string[]): string[] => [...new Set(all.flatMap((w) => [w, plainText(w)]))];
/** A word or words by themselves, in any case. */
const whole = (all: readonly string[]) =>
  new RegExp(
    `(?<![\\p{L}\\p{N}])(?:${withPlain(all)
      .map((w) => w.replace(/[.*+?^${}()|[\]\\]/g, '\\$&').replace(/\s+/g, '\\s+'))
      .join('|')})(?![\\p{L}\\p{N}])`,
    'iu',
  );
/** Those of further languages beside them. Common practice, no source. */
const WORDS = Object.fromEntries(
  (Object.keys(words.receipt) as ReceiptWord[]).map((name) => [name, whole([...words.receipt[name], ...further[name]])]),
) as Readonly<Record<ReceiptWord, RegExp>>;

/** Units and currencies may stand close behind or before a figure, and are no other letters. */
const JOINED = /^([^\p{L}\p{N}+\-\u2212|]*)([+\-\u2212]?)([\dOolI|][\dOolI|.,:/'’-]*?)([.,:;]*)(k?wh|wh|min|std|h|s|%|[a-z]{3}|\p{Sc})?([.,:;)]*)$/iu;

/** O and o as 0, l, I and | as 1, in what is digits and marks with a digit in it; what has another letter is no figure and stays. */
const figures = (token: string): string => {
  const found = JOINED.exec(token);
  if (!found) return token;
  const [, before = '', sign = '', body = '', marks = '', unit = '', after = ''] = found;
  if (!/\d/.test(body)) return token;
  return before + sign + body.replace(/[Oo]/g, '0').replace(/[lI|]/g, '1') + marks + unit + after;
};

/** More of a receipt is no receipt's, and would be looked through for minutes. Choices. */
const MOST = { lines: 1_000, letters: 500 };

/** A receipt line by line, as it is read. */
export function receiptLines(text: string): ReceiptLine[] {
  const lines = text.split(/\r\n|\r|\n/).slice(0, MOST.lines);
  return lines.map((raw) => {
    const plain = raw.slice(0, MOST.letters).normalize('NFKC').trim();
    const read = plain
      .split(/(\s+)/)
      .map(figures)
      .join('')
      // A blank that slipped in beside a mark.
      .replace(/(?<=\d)(?:\s([.,])|([.,])\s)(?=\d{2,3}(?!\d))/g, '$1$2');
    return { text: read, has: (word) => WORDS[word].test(read) };
  });
}

const TAX = withPlain(['vat', 'tax', 'mwst', 'ust', 'ddv', 'tva', 'iva', 'btw', ...further.tax]).join('|');
const INCLUDING = new RegExp(
  `(?<![\\p{L}\\p{N}])(?:(?:incl|inkl)\\.?|including|included|inclusive|inklusive|einschl\\.?|einschließlich|vklj\\.?|vključno(?:\\s+z)?|z|con|avec|dont|v[čc]\\.?|v[čc]etn[ěe]|sis\\.?|sisältää|sa?(?=\\s+(?:dph|pdv))|w\\s+tym)\\s*(?:\\d+(?:[.,]\\d+)?\\s*%\\s*)?(?:${TAX})\\.?(?![\\p{L}\\p{N}])|(?<![\\p{L}\\p{N}])(?:${TAX})\\s*(?:\\d+(?:[.,]\\d+)?\\s*%\\s*)?(?:incl\\.?|included|inkl\\.?|enthalten|vključen|incluido|incluida|inclusa|compresa|incluído|comprise|inbegrepen|ingår)(?![\\p{L}\\p{N}])`,
  'giu',
);
/** A line without the words that tax is in what it says. */
export const withoutTaxIn = (text: string): string => text.replace(INCLUDING, ' ');
/** True where a line speaks of something not paid, once that tax is in it is taken out. */
export const isNotPaid = (line: ReceiptLine): boolean => WORDS.not_paid.test(withoutTaxIn(line.text));
