import { currenciesOf, currencyWord, isCode, type SheetColumn, standsFor } from './sheet-columns';
import type { RowAsk, RowReason } from './sheet-rules';
import words from './sheet-words.json';

/** The money of a row: the columns of amount and price whose cell says something, with the codes and signs in it, and what the currency's own cell says. */
export type RowMoney = { paid: readonly { c: SheetColumn; said: readonly string[] }[]; own: { column: number; written: string } | null };
/** What holds where a row says nothing: the household's currency, what was said for the sheet, and of a sign that several share. */
export type CurrencyRules = { usual: string | null; said: string | null; symbol: (set: readonly string[]) => string | null };
export type RowCurrency = { currency: string | null; reasons: RowReason[]; asks: RowAsk[] };

/** The currencies that every one of these codes and signs may stand for. */
const inCommon = (of: readonly string[]): readonly string[] => currenciesOf(of[0] as string).filter((x) => of.every((s) => currenciesOf(s).includes(x)));

/**
 * What a row's money is in: by a code in it, else by its signs, else by a heading, else as usual. Cells that disagree are not chosen from, a sign that several currencies
 * share is asked. `null` where no money is said.
 */
export function rowCurrency({ paid, own }: RowMoney, rules: CurrencyRules): RowCurrency {
  const is = (currency: string): RowCurrency => ({ currency, reasons: [], asks: [] });
  const asked = (code: RowAsk['code'], options: readonly string[]): RowCurrency => ({ currency: null, reasons: [], asks: [{ code, column: null, options }] });
  const [first] = paid;
  if (!first) return { currency: null, reasons: [], asks: [] };
  const none = own !== null && !currencyWord(own.written.toLowerCase());
  const said = [...paid.flatMap((p) => p.said), ...(own === null || none ? [] : [own.written])];
  const codes = new Set(said.filter(isCode).map((s) => s.toUpperCase()));
  const signs = said.filter((s) => !isCode(s));
  const [code] = codes;
  const disagree = codes.size > 1 || (code ? signs.some((s) => !standsFor(s, code)) : signs.length > 0 && inCommon(signs).length === 0);
  const reasons = [...(none ? [{ column: own.column, code: 'bad_currency' }] : []), ...(disagree ? [{ column: first.c.n, code: 'currency_conflict' }] : [])];
  if (reasons.length > 0) return { currency: null, reasons, asks: [] };
  if (code) return is(code);
  const heading = paid.find((p) => p.c.currency)?.c.currency ?? null;
  const meant = signs.length > 0 ? signs : heading ? [heading] : [];
  if (meant.length === 0) {
    const usual = rules.usual ?? rules.said;
    return usual === null ? asked('currency', words.currencies) : is(usual);
  }
  const set = inCommon(meant);
  const chosen =
    set.length === 1 ? (set[0] as string) : rules.usual && meant.every((s) => standsFor(s, rules.usual as string)) ? rules.usual : rules.symbol(set);
  return chosen === null ? asked('currency_symbol', set) : is(chosen);
}
