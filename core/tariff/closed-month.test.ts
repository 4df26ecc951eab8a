import { idOf } from '../visit/fixtures/story';
import { changesToClosed, closeForm, isOver } from './closed-month';
import type { StatementRow } from './statement';

const bill = (amount: string, more: object = {}) => ({
  amount,
  currency: 'EUR',
  tax: null,
  payee: null,
  ref: null,
  state: 'charged',
  kind: 'charging' as const,
  came: null,
  ...more,
});
const row = (n: number, more: Partial<StatementRow> = {}): StatementRow => ({
  visitId: idOf(n),
  day: '2025-09-10',
  place: 'Vrba Crossing',
  car: 'Heron',
  driver: 'Ines',
  as: null,
  kWh: '20',
  bills: [bill('10.00')],
  receipts: 1,
  charged: true,
  hidden: false,
  ...more,
});

describe('what changed of a closed month', () => {
  it('nothing, whatever places, cars and people are called since, and in whatever order', () => {
    expect(changesToClosed([row(1), row(2)], [row(2, { place: 'Vrba', car: 'H', driver: 'I' }), row(1)])).toEqual([]);
  });
  it('a visit that came later, one that is gone, and what each adds', () => {
    const changes = changesToClosed([row(1)], [row(2, { day: '2025-09-02', bills: [bill('7.50'), bill('1', { currency: 'CHF' })] })]);
    expect(changes.map((c) => [c.visitId, c.what, c.by])).toEqual([
      [
        idOf(2),
        ['came later: €7.50; CHF\u00a01.00'],
        [
          { currency: 'CHF', amount: '1' },
          { currency: 'EUR', amount: '7.5' },
        ],
      ],
      [idOf(1), ['is no longer in it: it had €10.00'], [{ currency: 'EUR', amount: '-10' }]],
    ]);
  });
  it('names each thing that differs, what it is and what it was', () => {
    const now = row(1, { day: '2025-09-11', as: 'business', kWh: null, receipts: 2, bills: [bill('9.00', { state: 'settled', tax: '1.62' })] });
    expect(changesToClosed([row(1)], [now])[0]).toMatchObject({
      day: '2025-09-11',
      what: [
        'paid €9.00, tax €1.62, settled, was €10.00',
        'energy not known, was 20.0 kWh',
        'use business, was not said',
        'day 2025-09-11, was 2025-09-10',
        'receipts 2 receipts, was 1 receipt',
      ],
      by: [{ currency: 'EUR', amount: '-1' }],
    });
  });
  it('a state alone adds nothing to the sum; a bill taken back says so', () => {
    expect(changesToClosed([row(1)], [row(1, { bills: [bill('10.00', { state: 'queried' })] })])[0]?.by).toEqual([]);
    expect(changesToClosed([row(1)], [row(1, { bills: [] })])[0]?.what).toEqual(['paid no bill, was €10.00']);
  });
});

it.each([
  ['2025-09', true],
  ['2025-10', false],
  ['2025-11', false],
  ['2024-12', true],
])('%s can be closed on 15 October 2025: %s', (month, over) => expect(isOver(month, '2025-10-15')).toBe(over));
it.each(['2025-9', '2025-13', '25-09', '', '2025-09-01'])('%j is no month', (month) => expect(closeForm.safeParse({ month }).success).toBe(false));
