import priced from './fixtures/priced.json';
import { priceCase } from './price-case';

type Amounts = { [name: string]: unknown };
/** A dimension that is missing costs nothing. */
const withoutNothing = (all: Amounts): Amounts =>
  Object.fromEntries(Object.entries(all).filter(([, d]) => (d as { exact: string[] }).exact.some((e) => e !== '0')));

describe('published examples and worked cases', () => {
  it.each(priced.cases.map((c) => [c.id, c.title, c] as const))('%s: %s', (_id, _title, { expected, ...asked }) => {
    const got = priceCase(asked);
    if (!got.ok) throw new Error(JSON.stringify(got.problems));
    if (asked.kind !== 'session') return expect(got.answer).toEqual(expected);
    const { dimensions, x_fees, adjustments, ...rest } = got.answer as Record<string, Amounts>;
    const want = expected as unknown as Record<string, Amounts>;
    expect(rest).toEqual({ currency: want.currency, total: want.total });
    for (const [name, found] of Object.entries({ dimensions, x_fees, adjustments }))
      expect(withoutNothing(found as Amounts)).toEqual(withoutNothing(want[name] as Amounts));
  });
  it.each(priced.invalid.map((c) => [c.title, c] as const))('refuses: %s', (_title, { reject_where, ...asked }) => {
    const got = priceCase(asked);
    expect(got.ok ? null : got.problems[0]?.path).toBe(reject_where);
  });
});
