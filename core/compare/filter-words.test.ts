import { filterWords, groupsNamed } from './filter-words';
import { type LedgerFilter, PART_NAMES } from './ledger-filter';

const ALL: LedgerFilter = { time: 'handshake', mark: 'kW' };
const NAMES: Record<string, string> = { n: 'Ferrywell', s: 'Brod Landing', c: 'Heron 62', d: 'Ines Kolar', x: 'Stall 2' };
const words = (f: Partial<LedgerFilter>) => filterWords({ ...ALL, ...f }, ({ key }) => NAMES[key] ?? key);

describe('which visits a filter leaves, in words', () => {
  it('says nothing where all are left, however they are timed', () => {
    expect(words({})).toBe('');
    expect(words({ time: 'setUp', mark: 'kWh' })).toBe('');
    // The side that is left out changes what is counted, not which visits.
    expect(words({ without: 'car' })).toBe('');
  });
  it('names place, days, car and driver', () => {
    expect(words({ network: 'n', site: 's', car: 'c', driver: 'd' })).toBe('of Ferrywell, at Brod Landing, with Heron 62, driven by Ines Kolar');
    expect(words({ network: 'n', since: '2025-10-01' })).toBe('of Ferrywell, since 1 Oct 2025');
    expect(words({ until: '2025-10-31' })).toBe('until 31 Oct 2025');
    expect(words({ since: '2025-10-01', until: '2025-10-31' })).toBe('from 1 Oct 2025 to 31 Oct 2025');
    expect(words({ since: '2025-10-14', until: '2025-10-14' })).toBe('on 14 Oct 2025');
  });
  it('says what went wrong, what marks them and what is written there', () => {
    expect(words({ means: 'rfid', faults: 'any', only: 'no_bill', text: 'rain' })).toBe('means: RFID card, with faults, without a bill, with the words “rain”');
    expect(words({ faults: 'card_refused' })).toBe('fault: Card refused');
  });
  it('says of which number the list is, and of which groups', () => {
    expect(words({ counted: 'first_no', without: 'car' })).toBe('did not start at the first try, without the car’s');
    expect(
      words({
        counted: 'never',
        groups: [
          { by: 'stall', key: 'x' },
          { by: 'hour', key: '13' },
        ],
      }),
    ).toBe('with an attempt that never got power, stall: Stall 2, hour: 13');
  });
  it('names what is to be looked up, each once', () => {
    expect(groupsNamed({ ...ALL, site: 's', driver: 'd', groups: [{ by: 'stall', key: 'x' }] })).toEqual([
      { by: 'site', key: 's' },
      { by: 'driver', key: 'd' },
      { by: 'stall', key: 'x' },
    ]);
    expect(groupsNamed(ALL)).toEqual([]);
  });
  it('tells each part of an address that narrows', () => {
    const one: Required<Omit<LedgerFilter, 'groups'>> = {
      ...{ network: 'n', site: 's', car: 'c', driver: 'd', faults: 'any', since: '2025-10-01', until: '2025-10-31', means: 'app', only: 'open', text: 'fog' },
      ...{ counted: 'attempted', without: 'car', time: 'handshake', mark: 'kW' },
    };
    const silent = PART_NAMES.filter((name) => words({ [name]: one[name] }) === '');
    expect(silent).toEqual(['without', 'time', 'mark']);
  });
});
