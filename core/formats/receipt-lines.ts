import words from './sheet-words.json';

type ReceiptWord = keyof typeof words.receipt;
/** A line of a receipt with what it speaks of; letters that a reader takes for figures are figures where they stand in one. */
export type ReceiptLine = { text: string; has: (word: ReceiptWord) => boolean };

/** A word or words by themselves, in any case. */
const whole = (all: readonly string[]) =>
  new RegExp(`(?<![\\p{L}\\p{N}])(?:${all.map((w) => w.replace(/[.*+?^${}()|[\]\\]/g, '\\$&').replace(/\s+/g, '\\s+')).join('|')})(?![\\p{L}\\p{N}])`, 'iu');
const WORDS = Object.fromEntries(Object.entries(words.receipt).map(([name, list]) => [name, whole(list)])) as Readonly<Record<ReceiptWord, RegExp>>;

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

/** A receipt line by line, as it is read. */
export function receiptLines(text: string): ReceiptLine[] {
  return text.split(/\r\n|\r|\n/).map((raw) => {
    const plain = raw.normalize('NFKC').trim();
    const read = plain
      .split(/(\s+)/)
      .map(figures)
      .join('')
      // A blank that slipped in beside a mark.
      .replace(/(?<=\d)(?:\s([.,])|([.,])\s)(?=\d{2,3}(?!\d))/g, '$1$2');
    return { text: read, has: (word) => WORDS[word].test(read) };
  });
}

const TAX = 'vat|tax|mwst|ust|ddv|tva|iva|btw';
const INCLUDING = new RegExp(
  `(?<![\\p{L}\\p{N}])(?:(?:incl|inkl)\\.?|including|included|inclusive|inklusive|einschl\\.?|einschließlich|vklj\\.?|vključno(?:\\s+z)?|z|con|avec|dont)\\s*(?:\\d+(?:[.,]\\d+)?\\s*%\\s*)?(?:${TAX})\\.?(?![\\p{L}\\p{N}])|(?<![\\p{L}\\p{N}])(?:${TAX})\\s*(?:\\d+(?:[.,]\\d+)?\\s*%\\s*)?(?:incl\\.?|included|inkl\\.?|enthalten|vključen|incluido|comprise|inbegrepen)(?![\\p{L}\\p{N}])`,
  'giu',
);
/** A line without the words that tax is in what it says. */
export const withoutTaxIn = (text: string): string => text.replace(INCLUDING, ' ');
/** True where a line speaks of something not paid, once that tax is in it is taken out. */
export const isNotPaid = (line: ReceiptLine): boolean => WORDS.not_paid.test(withoutTaxIn(line.text));
