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
  });
  it('leaves defaults unwritten', () => expect(writeLedgerFilter({ time: 'handshake', mark: 'kW' })).toBe(''));
  it('ignores what it does not understand', () => {
    expect(read("?network=' OR 1=1&faults=nonsense&counted=everything&mark=W&site=")).toEqual({ time: 'handshake', mark: 'kW' });
  });
});
