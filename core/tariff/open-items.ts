import { printMoney } from '../units/money';
import { printCount } from '../units/print';
import { daysBetween, localDay } from '../units/zoned';
import type { Visit } from '../visit/derive';
import { holdsOf } from '../visit/holds';
import { openMoney, SEEN_TO } from '../visit/open-money';
import type { BillTotals } from './checked-bill';

/** What is open about a visit's money, and since which day. `what`: in words; `days`: how long. */
export type OpenItem = { visitId: string; kind: 'no_bill' | 'pending' | 'queried' | 'differs' | 'off' | 'hold'; since: string; days: number; what: string };

/**
 * Everything that waits about a visit's money: a charge without a bill with what it should come to, a bill that is pending or queried since its state was last set, one of which
 * another amount was brought in than counts, one that is not what the price on file makes and that nobody has looked into, a hold.
 * @param today local day
 */
export function openItems(v: Visit, checked: BillTotals | { unpriced: string } | null, today: string): OpenItem[] {
  const dayOf = (ms: number) => localDay(ms, v.zone);
  const item = (kind: OpenItem['kind'], since: string, what: string): OpenItem => ({
    visitId: v.id,
    kind,
    since,
    days: Math.max(0, daysBetween(since, today)),
    what,
  });
  const priced = checked && !('unpriced' in checked) ? checked : null;
  const arrived = dayOf(v.pulledInAt ?? v.lastEventAt);
  const out: OpenItem[] = [];
  if (openMoney(v).includes('no_bill'))
    out.push(item('no_bill', arrived, priced ? `no bill yet, estimated ${printMoney(priced.total, priced.currency)}` : 'no bill yet'));
  for (const b of v.bills) {
    const { state, amount, currency } = b.payload;
    if (state !== 'pending' && state !== 'queried') continue;
    const set = v.history.get(b.id)?.findLast((n) => n.field === 'state');
    out.push(item(state, dayOf(set?.madeAt ?? b.t), `${printMoney(amount, currency)}, ${state}`));
  }
  if (openMoney(v).includes('differs'))
    for (const { bill: b, how } of v.billsAgain)
      if (how === 'other')
        out.push(item('differs', dayOf(b.t), `${printMoney(b.payload.amount, b.payload.currency)} brought in, another amount than counts, not looked into`));
  const off = priced?.difference?.known && Number(priced.difference.value) !== 0 ? priced.difference.value : null;
  const last = v.bills.at(-1);
  if (priced && off && last && !v.bills.some((b) => SEEN_TO.has(b.payload.state) || b.payload.state === 'pending'))
    out.push(
      item(
        'off',
        dayOf(last.t),
        `${printMoney(off.replace('-', ''), priced.currency)} ${off.startsWith('-') ? 'under' : 'over'} the price on file, not looked into`,
      ),
    );
  for (const h of holdsOf(v, today))
    if (h.released === null) out.push(item('hold', dayOf(h.t), `${h.currency ? printMoney(h.amount, h.currency) : h.amount} held back, not noted as released`));
  return out;
}

/** The longest open first. */
export const longestFirst = (a: OpenItem, b: OpenItem): number => b.days - a.days || (a.visitId < b.visitId ? -1 : 1);

/** How long, for a list. */
export const openFor = (i: OpenItem): string => (i.days === 0 ? 'today' : printCount(i.days, 'day'));
