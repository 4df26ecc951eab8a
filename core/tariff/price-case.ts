import * as z from '@/core/units/schema';
import { DIMENSIONS, extraPricing, ocpiTariff, subscription } from '../records/ocpi-tariff';
import { minorDigits } from '../units/money';
import { ownWords } from '../units/own-words';
import { type Bill, billOf, type CannotPrice, cannotPrice, FEES, type Line, sumTaxed, type Taxed } from './bill';
import { advertisedPlan, breakEven } from './break-even';
import { chargedSession } from './charged-session';
import { type CompiledTariff, compileTariff } from './compiled-tariff';
import { decimal, exact, fractionText, NOTHING } from './exact';
import { cannotPriceAny, cheapest, type MonthCost, type PlanCost, planCost, roundedTotal } from './plan-cost';
import type { ChargedSession } from './session-period';

/** Sessions, plans and sessions times plans that one request may name. */
const MOST_SESSIONS = 1_000;
const MOST_PLANS = 50;
const MOST_PRICED = 5_000;

/** Looks at an element that one request may ask for: beyond, the server would do nothing else. */
const MOST_WORK = 4_000_000;

const sessions = z.array(chargedSession).check(z.minLength(1, 'must hold at least one session'), z.maxLength(MOST_SESSIONS));
const tariffCase = { tariff: ocpiTariff, x_pricing: z.optional(extraPricing) };
const kwh = z.number().check(z.minimum(0, 'must not be below 0'), z.maximum(1e9));

/** Where in what came something is wrong: `tariff.elements[0].price_components[0].price`. */
const pathText = (path: readonly PropertyKey[]): string =>
  path.reduce<string>((text, part) => (typeof part === 'number' ? `${text}[${part}]` : text === '' ? String(part) : `${text}.${String(part)}`), '') || 'body';

export type PriceAnswer = { ok: true; answer: Record<string, unknown> } | { ok: false; problems: CannotPrice[] };
const refused = (...problems: CannotPrice[]): PriceAnswer => ({ ok: false, problems });

function problemsOf(error: z.core.$ZodError): CannotPrice[] {
  return error.issues.map((issue) =>
    issue.code === 'unrecognized_keys'
      ? { path: pathText([...issue.path, issue.keys[0] ?? '']), reason: 'is not known' }
      : { path: pathText(issue.path), reason: issue.message },
  );
}

const amounts = (t: Taxed, currency: string) => {
  const places = minorDigits(currency);
  const { excl, incl } = roundedTotal(t, currency);
  return { excl_vat: decimal(excl, places), incl_vat: decimal(incl, places) };
};
const six = ({ excl, incl }: Taxed) => ({ excl_vat: decimal(excl, 6), incl_vat: decimal(incl, 6), exact: [fractionText(excl), fractionText(incl)] });

/** The lines of some kinds by kind: volume, unit, amounts. */
function byKind(lines: readonly Line[], kinds: readonly Line['of'][]) {
  return Object.fromEntries(
    kinds.flatMap((kind) => {
      const own = lines.filter((l) => l.of === kind);
      const quantity = own.reduce((s, l) => s.add(l.quantity), NOTHING);
      return own.length === 0 ? [] : [[kind, { billed: decimal(quantity, 6), unit: own[0]?.unit, ...six(sumTaxed(own)) }]];
    }),
  );
}

function sessionAnswer({ currency, lines, total }: Bill) {
  return {
    currency,
    dimensions: byKind(lines, DIMENSIONS),
    x_fees: byKind(lines, FEES),
    adjustments: Object.fromEntries(lines.flatMap((l) => (l.vat === null ? [[l.of, six(l)]] : []))),
    total: { ...amounts(total, currency), exact: [fractionText(total.excl), fractionText(total.incl)] },
  };
}

/** Every line of a bill as it came about, for those who check it: times in UTC, amounts to six decimals. */
const linesAnswer = ({ lines }: Bill) =>
  lines.map((l) => ({
    of: l.of,
    element: l.element,
    quantity: decimal(l.quantity, 6),
    added_by_step: decimal(l.added, 6),
    unit: l.unit,
    price: l.price === null ? null : decimal(l.price, 6),
    per: l.per,
    vat: l.vat === null ? null : decimal(l.vat, 3),
    ...six(l),
    where: l.where.map((w) => w.map((ms) => new Date(ms).toISOString())),
  }));

const monthsAnswer = (months: ReadonlyMap<string, MonthCost>, currency: string) =>
  Object.fromEntries(
    [...months].map(([name, m]) => [
      name,
      { sessions: amounts(m.sessions, currency), subscription: amounts(m.subscription, currency), total: amounts(m.total, currency) },
    ]),
  );
const planAnswer = (cost: PlanCost, currency: string) => ({ months: monthsAnswer(cost.months, currency), total: amounts(cost.total, currency) });

/** One kind of request: what it must hold, and what is answered. */
function kind<T>(schema: z.ZodMiniType<T>, price: (asked: T, withLines: boolean) => PriceAnswer) {
  return (body: unknown, withLines: boolean): PriceAnswer => {
    const asked = schema.safeParse(body, { error: ownWords });
    return asked.success ? price(asked.data, withLines) : refused(...problemsOf(asked.error));
  };
}
/** How often elements are looked at, at most: at every period and every time of day on every day of every session. */
const workOf = (t: CompiledTariff, all: readonly ChargedSession[]): number =>
  all.reduce((work, { periods }) => {
    const days = Math.ceil(((periods.at(-1)?.end ?? 0) - (periods[0]?.start ?? 0)) / 86_400_000) + 1;
    return work + (periods.length + days * (t.byClock ? t.minutes.length + 16 : 0)) * (t.elements.length + 2);
  }, 0);
const tooMuch = (work: number): CannotPrice[] =>
  work > MOST_WORK ? [{ path: 'body', reason: 'is too much at once: ask for fewer sessions, days or elements' }] : [];

const answered = (problems: CannotPrice[], answer: () => Record<string, unknown>): PriceAnswer =>
  problems.length > 0 ? refused(...problems) : { ok: true, answer: answer() };

const KINDS: ReadonlyMap<unknown, ReturnType<typeof kind>> = new Map([
  [
    'session',
    kind(
      z.object({ ...tariffCase, session: chargedSession, x_context: z.optional(z.strictObject({ kwh_used_before_in_month: z.optional(kwh) })) }),
      ({ tariff, x_pricing, session, x_context }, withLines) => {
        const compiled = compileTariff(tariff, x_pricing);
        return answered([...cannotPrice(compiled, session), ...tooMuch(workOf(compiled, [session]))], () => {
          const bill = billOf(compiled, session, exact(x_context?.kwh_used_before_in_month ?? 0));
          return { ...sessionAnswer(bill), ...(withLines ? { lines: linesAnswer(bill) } : {}) };
        });
      },
    ),
  ],
  [
    'month',
    kind(z.object({ ...tariffCase, sessions, x_subscription: z.optional(subscription) }), ({ tariff, x_pricing, x_subscription, sessions: all }) => {
      const compiled = compileTariff(tariff, x_pricing);
      return answered([...cannotPriceAny(compiled, all, (i) => `sessions[${i}]`), ...tooMuch(workOf(compiled, all))], () => {
        const cost = planCost(compiled, all, x_subscription ?? null);
        return { sessions: cost.bills.map(sessionAnswer), ...planAnswer(cost, tariff.currency) };
      });
    }),
  ],
  [
    'compare',
    kind(
      z.object({
        plans: z
          .array(z.object({ name: z.string().check(z.minLength(1, 'is missing'), z.maxLength(80)), ...tariffCase, x_subscription: z.optional(subscription) }))
          .check(z.minLength(1, 'must hold at least one plan'), z.maxLength(MOST_PLANS)),
        sessions,
      }),
      ({ plans, sessions: all }) => {
        const currency = plans[0]?.tariff.currency ?? '';
        if (plans.length * all.length > MOST_PRICED) return refused({ path: 'sessions', reason: `plans times sessions must be at most ${MOST_PRICED}` });
        const compiled = plans.map((p) => ({ ...p, tariff: compileTariff(p.tariff, p.x_pricing) }));
        const problems = compiled.flatMap(({ name, tariff }, n): CannotPrice[] => [
          ...(plans.findIndex((q) => q.name === name) < n ? [{ path: `plans[${n}].name`, reason: 'is the name of another plan' }] : []),
          ...(tariff.currency === currency ? [] : [{ path: `plans[${n}].tariff.currency`, reason: 'must be that of the first plan' }]),
          ...cannotPriceAny(tariff, all, (i) => `sessions[${i}]`),
        ]);
        const work = compiled.reduce((sum, p) => sum + workOf(p.tariff, all), 0);
        return answered([...problems, ...tooMuch(work)], () => {
          const costs = new Map(compiled.map((p) => [p.name, planCost(p.tariff, all, p.x_subscription ?? null)]));
          return { plans: Object.fromEntries([...costs].map(([name, cost]) => [name, planAnswer(cost, currency)])), cheapest: cheapest(costs) };
        });
      },
    ),
  ],
  [
    'break_even',
    kind(z.object({ plan_a: advertisedPlan, plan_b: advertisedPlan }), ({ plan_a, plan_b }) => {
      const { crossings, atZero, inTheLimit } = breakEven(plan_a, plan_b);
      return {
        ok: true,
        answer: {
          crossings_kwh: crossings.map((c) => decimal(c, 6)),
          exact: crossings.map(fractionText),
          cheaper_at_zero: atZero,
          cheaper_in_the_limit: inTheLimit,
        },
      };
    }),
  ],
]);

/**
 * Prices what a request asks: one `session` by a tariff (also where no kind is named), the sessions of a `month` with a plan, several plans
 * to `compare`, or where two plans `break_even`. The answer has totals rounded to the minor unit as text, dimensions and fees to six decimals and exact
 * as fractions. What cannot be priced is refused with every path and reason.
 * @param withLines a session's answer has its lines, too
 */
export function priceCase(body: unknown, withLines = false): PriceAnswer {
  if (typeof body !== 'object' || body === null || Array.isArray(body)) return refused({ path: 'body', reason: 'must hold named fields' });
  const price = KINDS.get((body as { kind?: unknown }).kind ?? 'session');
  return price ? price(body, withLines) : refused({ path: 'kind', reason: `must be one of: ${[...KINDS.keys()].join(', ')}` });
}
