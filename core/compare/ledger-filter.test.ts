import { readLedgerFilter, writeLedgerFilter } from './ledger-filter';

const read = (query: string) => {
  const q = new URLSearchParams(query);
  return readLedgerFilter((name) => q.get(name));
};
const NETWORK = '01900000-0000-7000-8000-000000000001';

describe('the filter in the address', () => {
  it('comes back as it was written', () => {
    const f = { network: NETWORK, faults: 'any', counted: 'never', time: 'setUp', mark: 'kWh' } as const;
    expect(read(writeLedgerFilter(f))).toEqual(f);
    const narrowed = { since: '2025-10-01', until: '2025-10-31', means: 'rfid', only: 'no_bill', text: 'rain & fog', time: 'handshake', mark: 'kW' } as const;
    expect(read(writeLedgerFilter(narrowed))).toEqual(narrowed);
  });
  it('leaves defaults unwritten', () => expect(writeLedgerFilter({ time: 'handshake', mark: 'kW' })).toBe(''));
  it('ignores what it does not understand', () => {
    expect(read('?since=yesterday&until=2025-13-01&means=cash&only=mine&text=%20')).toEqual({ time: 'handshake', mark: 'kW' });
    expect(read(`?text=${'x'.repeat(80)}`).text).toHaveLength(60);
    expect(read("?network=' OR 1=1&faults=nonsense&counted=everything&mark=W&site=")).toEqual({ time: 'handshake', mark: 'kW' });
  });
});
