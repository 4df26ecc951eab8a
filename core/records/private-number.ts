/**
 * Numbers that must not be kept: payment cards, contracts, hardware.
 * A text field holding one is refused with the reason, before it is stored anywhere.
 */

/** Luhn check digit (ISO/IEC 7812-1, from memory). @param digits digits only */
function luhn(digits: string): boolean {
  let sum = 0;
  for (let i = 0; i < digits.length; i++) {
    let d = Number(digits[digits.length - 1 - i]);
    if (i % 2 === 1) {
      d *= 2;
      if (d > 9) d -= 9;
    }
    sum += d;
  }
  return sum % 10 === 0;
}

/** Digits of a payment card (ISO/IEC 7812-1, from memory). */
const CARD = { least: 13, most: 19 };
/** Groups in which cards are written, that other figures before or behind them may run on from: "4-4-4-4", "4-6-5". Common practice, no source. */
const GROUP = /^\d{3,7}$/;

/** Of three figures at least, so many make a card. */
const MOST_GROUPS = 6;
/** What may stand between two groups: a few blanks or dashes. */
const BETWEEN = /^[\p{Zs}\p{Pd}]{1,3}$/u;
/** An id as programs write them (RFC 9562): its figures are of no card, though one in some thousands has a check digit that is right. */
const UUID = /(?<![0-9a-f-])[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}(?![0-9a-f-])/gi;
const isCard = (digits: string): boolean => digits.length >= CARD.least && digits.length <= CARD.most && luhn(digits);

/**
 * Whether a payment card number stands in a text: whole, or in groups by blanks or dashes, also where a date or a code runs on from it. One pass from figure to figure, with the few
 * groups before it: a text of millions of figures is no more work than it is long.
 */
function hasCard(text: string): boolean {
  let [end, whole] = [-1, ''];
  let before: string[] = [];
  for (const { 0: group, index } of text.matchAll(/\d+/g)) {
    const goesOn = end >= 0 && index - end <= 3 && BETWEEN.test(text.slice(end, index));
    if (!goesOn) {
      if (isCard(whole)) return true;
      [whole, before] = ['', []];
    }
    end = index + group.length;
    if (whole.length <= CARD.most) whole += group;
    before = GROUP.test(group) ? [group, ...before].slice(0, MOST_GROUPS) : [];
    let digits = '';
    if (isCard(group)) return true;
    for (const g of before) {
      digits = g + digits;
      if (isCard(digits)) return true;
    }
  }
  return isCard(whole);
}

/**
 * Says why a text may not be kept, or `null` when it may.
 * Looks for a payment card number (13–19 digits passing Luhn), a charging contract id (eMAID form:
 * two letters, three of the provider, nine of the contract; from memory of ISO 15118-2) and a hardware address.
 */
export function privateNumber(written: string): string | null {
  const text = written.normalize('NFKC');
  if (hasCard(text.replace(UUID, 'id'))) return 'This looks like a payment card number. Card numbers are never kept here.';
  if (/\b[A-Z]{2}-[A-Z0-9]{3}-[A-Z0-9]{9}(-[A-Z0-9])?\b/i.test(text))
    return 'This looks like a charging contract number. Contract numbers are never kept here.';
  if (/\b(?:[0-9A-F]{2}[:-]){5,7}[0-9A-F]{2}\b/i.test(text)) return 'This looks like a hardware or RFID number. Such numbers are never kept here.';
  return null;
}

/**
 * Says why a text about a way to pay may not be kept, or `null`. Stricter than {@link privateNumber}, since a label
 * needs no long number at all: eight digits and more, an IBAN (ISO 13616), or the hexadecimal number of an RFID card.
 */
export function accountNumber(text: string): string | null {
  const why = privateNumber(text);
  if (why) return why;
  if (/\d(?:[ -]?\d){7,}/.test(text) || /\b[A-Z]{2}\d{2}(?: ?[A-Z0-9]{4}){3,}/i.test(text))
    return 'This looks like a card or account number. Name it in words: such numbers are never kept here.';
  if (/\b(?=[0-9A-F]*\d)(?=[0-9A-F]*[A-F])[0-9A-F]{8,20}\b/i.test(text)) return 'This looks like the number of an RFID card. Such numbers are never kept here.';
  return null;
}
