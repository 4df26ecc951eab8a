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
  it('each thing comes back by itself, and nothing beside it', () => {
    const ids = { network: NETWORK, site: NETWORK, car: NETWORK, driver: NETWORK };
    const all = {
      ...ids,
      faults: 'start_error',
      since: '2025-10-01',
      until: '2025-10-31',
      means: 'app',
      only: 'open',
      text: 'rain',
      counted: 'timed',
      without: 'car',
    };
    for (const [name, value] of Object.entries(all)) {
      const one = { [name]: value };
      expect(writeLedgerFilter(one)).toBe(`?${name}=${value}`);
      expect(read(`?${name}=${value}`)).toEqual({ ...one, time: 'handshake', mark: 'kW' });
    }
    expect(read('?since=2025-10-1&until=20251031')).toEqual({ time: 'handshake', mark: 'kW' });
    expect(writeLedgerFilter({})).toBe('');
    expect(writeLedgerFilter({ groups: [] })).toBe('');
  });
  it('groups: two at most, ids where they must be, hours that there are, keys of any letters', () => {
    const groups = (text: string) => read(`?group=${encodeURIComponent(text)}`).groups;
    const two = [
      { by: 'model', key: 'Twin 300, 2: new' },
      { by: 'hour', key: '13' },
    ] as const;
    expect(read(writeLedgerFilter({ groups: [...two] })).groups).toEqual(two);
    expect(groups('means:app,hour:7,weather:rain')).toEqual([
      { by: 'means', key: 'app' },
      { by: 'hour', key: '7' },
    ]);
    for (const text of ['', 'hour:24', 'hour:x', 'means:', 'colour:red', 'site:x', 'driver:x', 'model:%E0%A4', `model:${'x'.repeat(81)}`])
      expect([text, groups(text)]).toEqual([text, undefined]);
    expect(groups(`site:${NETWORK}`)).toEqual([{ by: 'site', key: NETWORK }]);
    expect(groups(`driver:${NETWORK}`)).toEqual([{ by: 'driver', key: NETWORK }]);
    expect(groups(`model:${'x'.repeat(80)}`)?.[0]?.key).toHaveLength(80);
  });
});
