import Big from 'big.js';
import { currenciesOf, currencyWord } from './sheet-columns';

export type Mark = ',' | '.';
/** A figure as it is written, its decimal mark not settled yet. `can`: the marks it can be read by. */
export type Figure = { digits: string; negative: boolean; unit: string | null; currencies: string[]; can: Mark[] };
export type FigureKind = 'kWh' | 'amount' | 'perKWh' | 'soc' | 'time';

const UNITS: Readonly<Record<FigureKind, RegExp>> = {
  kWh: /(kwh|wh)$/i,
  amount: /(?!)/,
  perKWh: /\/\s*kwh$/i,
  soc: /%$/,
  // Its unit is the duration's.
  time: /(?!)/,
};
const MONEY: ReadonlySet<FigureKind> = new Set(['amount', 'perKWh']);

/** Letters of the longest cell that is looked through for a figure, a duration or a date: what is longer is none, and would be looked through for minutes. A choice. */
export const MOST_FIGURE = 200;

/** Reads a cell as a figure of its field; `null` where it is none. */
export function figureOf(cell: string, kind: FigureKind): Figure | null {
  if (cell.length > MOST_FIGURE) return null;
  let text = cell.normalize('NFKC').trim();
  let negative = false;
  let signs = 0;
  const brackets = /^\((.*)\)$/s.exec(text)?.[1];
  if (brackets !== undefined) {
    text = brackets.trim();
    negative = true;
    signs = 1;
  }
  let unit: string | null = null;
  const currencies: string[] = [];
  for (let changed = true; changed; ) {
    changed = false;
    const take = (rest: string) => {
      text = rest.trim();
      changed = true;
    };
    const sign = /^[+\-\u2212]/.exec(text)?.[0];
    if (sign) {
      signs += 1;
      negative ||= sign !== '+';
      take(text.slice(1));
    } else if (/[-\u2212]$/.test(text)) {
      signs += 1;
      negative = true;
      take(text.slice(0, -1));
    }
    const found: string | undefined = unit === null ? UNITS[kind].exec(text)?.[0] : undefined;
    if (found) {
      unit = found.toLowerCase().replace(/[/\s]/g, '');
      take(text.slice(0, -found.length));
    }
    if (MONEY.has(kind)) {
      const before = /^[^\d.,\s'’+\-\u2212]+/.exec(text)?.[0];
      const after = /[^\d.,\s'’+\-\u2212]+$/.exec(text)?.[0];
      if (before && currencyWord(before.toLowerCase())) {
        currencies.push(before);
        take(text.slice(before.length));
      } else if (after && currencyWord(after.toLowerCase())) {
        currencies.push(after);
        take(text.slice(0, -after.length));
      }
    }
  }
  if (signs > 1 || !/^\d(.*\d)?$/s.test(text) || !/^[\d.,\s'’]+$/.test(text)) return null;
  if (/[\s'’]/.test(text)) {
    if (!/^\d{1,3}([\s'’]\d{3})+([.,]\d+)?$/.test(text)) return null;
    text = text.replace(/[\s'’]/g, '');
  }
  const can = ([',', '.'] as const).filter((m) => canBe(text, m));
  return can.length === 0 ? null : { digits: text, negative, unit, currencies: currencies.flatMap((c) => currenciesOf(c)).length === 0 ? [] : currencies, can };
}

/** Whether a mark can be the decimal one: groups of three are then joined by the other. */
function canBe(text: string, mark: Mark): boolean {
  const [m, o] = mark === ',' ? [',', '\\.'] : ['\\.', ','];
  return new RegExp(`^(\\d+|[1-9]\\d{0,2}(${o}\\d{3})+)(${m}\\d+)?$`).test(text);
}
/** True where both marks can be, and say different things. */
export const isOpen = (f: Figure): boolean => f.can.length > 1 && /[.,]/.test(f.digits);
/** The mark that a figure proves; `null` where it proves none. */
export const proves = (f: Figure): Mark | null => (f.can.length === 1 && /[.,]/.test(f.digits) ? (f.can[0] as Mark) : null);

/** The decimal mark of a figure by itself: the one it proves, else the one that is written in it. */
export const markAlone = (f: Figure): Mark => (isOpen(f) ? (f.digits.includes(',') ? ',' : '.') : (f.can[0] as Mark));

/** The value by a decimal mark, at most six decimals, half up. */
export function valueOf(f: Figure, mark: Mark): Big {
  const plain = mark === ',' ? f.digits.replaceAll('.', '').replace(',', '.') : f.digits.replaceAll(',', '');
  const big = new Big(new Big(plain).toFixed(6, Big.roundHalfUp));
  return f.negative ? big.times(-1) : big;
}

/** The value, by the mark of its column where the figure leaves it open itself; `null` where that is not known. */
export function valueBy(f: Figure, column: Mark | null): Big | null {
  const mark = isOpen(f) ? column : (f.can[0] as Mark);
  return mark && valueOf(f, mark);
}
