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

/** Whether a payment card number stands in a text: whole, or in groups by blanks or dashes, also where a date or a code runs on from it. */
function hasCard(text: string): boolean {
  for (const [run] of text.matchAll(/\d+(?:[\p{Zs}\p{Pd}]{1,3}\d+)*/gu)) {
    const groups = run.split(/\D+/u);
    for (let i = 0; i < groups.length; i++) {
      let digits = '';
      for (let j = i; j < groups.length && digits.length <= CARD.most; j++) {
        digits += groups[j];
        const grouped = i === j || (i === 0 && j === groups.length - 1) || groups.slice(i, j + 1).every((g) => GROUP.test(g));
        if (grouped && digits.length >= CARD.least && digits.length <= CARD.most && luhn(digits)) return true;
      }
    }
  }
  return false;
}

/**
 * Says why a text may not be kept, or `null` when it may.
 * Looks for a payment card number (13–19 digits passing Luhn), a charging contract id (eMAID form:
 * two letters, three of the provider, nine of the contract; from memory of ISO 15118-2) and a hardware address.
 */
export function privateNumber(written: string): string | null {
  const text = written.normalize('NFKC');
  if (hasCard(text)) return 'This looks like a payment card number. Card numbers are never kept here.';
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
