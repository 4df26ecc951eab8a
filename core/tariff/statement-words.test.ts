import { beyondWords, billWords, changeWords, closedWords, dayAndPlace, periodWords, statementWords } from './statement-words';

const bill = { amount: '15.5', currency: 'EUR', tax: null, payee: null, ref: null, state: 'charged', kind: 'charging' as const, came: null };
const row = { bills: [bill], receipts: 0 };

describe('the words of a statement', () => {
  it('say of which month or year it is, and what it comes to', () => {
    expect([periodWords('2025-10'), periodWords('2025')]).toEqual(['Oct 2025', '2025']);
    const rows = [{}, {}] as never[];
    const sum = (currency: string, paid: string, bills: number) => ({ of: '', currency, bills, paid, tax: '0', taxed: 0 });
    expect(statementWords({ rows: [], sums: [] })).toBe('Nothing was charged or paid then.');
    expect(statementWords({ rows, sums: [] })).toBe('2 visits, and no bill yet.');
    expect(statementWords({ rows, sums: [sum('EUR', '15.5', 1), sum('HUF', '7000', 2)] })).toBe('€15.50 in 1 bill; Ft\u00a07,000 in 2 bills, from 2 visits.');
  });
  it('say how many visits are left out, where any are', () => {
    expect([beyondWords(0), beyondWords(1)]).toEqual(['', 'Left out: 1 more visit, as no statement holds so many. Ask for a month.']);
  });
  it('say of bills by whom they are, else whether a receipt is there', () => {
    expect(billWords({ bills: [], receipts: 1 })).toBe('no bill');
    expect([0, 1, 2].map((receipts) => billWords({ ...row, receipts }))).toEqual(['no receipt', '1 receipt', '2 receipts']);
    expect(
      billWords({
        ...row,
        bills: [
          { ...bill, payee: 'Town', ref: '17' },
          { ...bill, state: 'queried' },
        ],
      }),
    ).toBe('Town, 17; queried');
    expect(dayAndPlace({ day: '2025-10-14', place: 'private' })).toBe('14 Oct private');
  });
  it('say what was closed, and what it adds since', () => {
    const closed = [{ month: '2025-10', at: Date.UTC(2025, 10, 3, 23, 30), by: 'Tone Zupan' }];
    expect(closedWords('2025-10', closed, 'Europe/Ljubljana')).toBe('Closed on 4 Nov 2025 by Tone Zupan');
    expect(closedWords('2025', [...closed, { ...closed[0], month: '2025-11' } as (typeof closed)[0]], 'UTC')).toBe(
      'Oct 2025 closed on 3 Nov 2025 by Tone Zupan; Nov 2025 closed on 3 Nov 2025 by Tone Zupan',
    );
    expect(changeWords({ what: ['new'], by: [] })).toBe('new');
    expect(
      changeWords({
        what: ['paid', 'day'],
        by: [
          { currency: 'EUR', amount: '3' },
          { currency: 'USD', amount: '-2' },
          { currency: 'EUR', amount: '0' },
        ],
      }),
    ).toMatch(/^paid; day \(\+€3\.00, [-−]\$2\.00, €0\.00\)$/);
  });
});
