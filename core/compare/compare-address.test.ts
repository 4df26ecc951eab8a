import { mistypedCompare, readCompareAsk, writeCompareAsk } from './compare-address';
import { readLedgerFilter, writeLedgerFilter } from './ledger-filter';
import { viewAddress, viewForm } from './saved-view';

const read = (address: string) => {
  const q = new URLSearchParams(address);
  return readCompareAsk((name) => q.get(name));
};
const ID = '01900000-0000-7000-8000-000000000001';

describe('the address of a comparison', () => {
  it('says nothing of what is as usual', () => {
    expect(read('')).toEqual({ filter: { time: 'handshake', mark: 'kW' }, by: ['network'], look: 'starts', sort: 'firstTry', least: 0, change: null });
    expect(writeCompareAsk(read(''))).toBe('');
  });
  it('brings back what it was written from', () => {
    const address = `?car=${ID}&since=2025-01-01&without=car&mark=A&by=site&and=hour&look=faults&sort=stuck&least=5&change=2025-06-01`;
    expect(read(writeCompareAsk(read(address)))).toEqual(read(address));
    expect(read(address)).toMatchObject({
      by: ['site', 'hour'],
      look: 'faults',
      sort: 'stuck',
      least: 5,
      change: '2025-06-01',
      filter: { car: ID, without: 'car', mark: 'A' },
    });
  });
  it.each([
    'by=moon&and=moon&look=moon&sort=moon&least=many&change=tomorrow',
    'least=-3&change=2025-13-40',
    'least=2.5&and=network',
    'sort=stuck',
    'counted=first_yes&group=hour:3',
    'change=20250601',
  ])('what is not understood is left out: %s', (address) => expect(read(address)).toEqual(read('')));
  it('two groupings may stand in one', () => {
    expect(read('by=site,hour')).toEqual(read('by=site&and=hour'));
    expect(read('by=site,site').by).toEqual(['site']);
    expect(read('by=,hour').by).toEqual(['network', 'hour']);
  });
  it.each([
    ['', []],
    [`by=site,hour&look=faults&sort=stuck&least=1000&car=${ID}&since=2024-02-29&text=rain&time=setUp&mark=A&without=car`, []],
    ['by=network&look=starts&sort=firstTry&least=0&time=handshake&mark=kW&faults=any&faults=x', []],
    ['by=&and=&look=&sort=&least=&car=&since=&text=%20', []],
    ['by=moon', ['by']],
    ['by=site,moon', ['by']],
    ['by=site,hour,car', ['by']],
    ['by=site,hour&and=car', ['by']],
    ['by=site&and=moon', ['and']],
    ['look=power', ['look']],
    ['sort=stuck', ['sort']],
    ['look=faults&sort=stuck', []],
    ['least=1001', ['least']],
    ['least=-1', ['least']],
    ['least=2.5', ['least']],
    ['site=x&since=2025-02-30&until=yesterday&mark=W', ['site', 'since', 'until', 'mark']],
    ['faults=nonsense&means=cash&only=mine&without=moon&time=x&network=1&driver=1', ['network', 'driver', 'faults', 'means', 'only', 'without', 'time']],
  ])('what is not understood is named to who asks: %s', (address, names) => {
    const q = new URLSearchParams(address);
    expect(mistypedCompare((name) => q.get(name))).toEqual(names);
  });
  it('no list is longer than anybody reads', () => expect(read('least=99999').least).toBe(1000));
});

describe('the groups of a list', () => {
  const groups = (text: string) => readLedgerFilter((name) => (name === 'group' ? text : null)).groups;
  it('are read, two at most', () => {
    expect(groups('means:app,hour:13')).toEqual([
      { by: 'means', key: 'app' },
      { by: 'hour', key: '13' },
    ]);
    expect(groups('means:app,hour:13,weather:rain')).toHaveLength(2);
    expect(groups(`stall:${ID}`)).toEqual([{ by: 'stall', key: ID }]);
  });
  it('come back whatever is in their keys', () => {
    const hostile = [{ by: 'model' as const, key: 'Twin 300, “A”: 50 % & more,=1' }];
    const address = writeLedgerFilter({ groups: hostile });
    const q = new URLSearchParams(address);
    expect(readLedgerFilter((name) => q.get(name)).groups).toEqual(hostile);
    expect(writeLedgerFilter({ groups: [] })).toBe('');
  });
  it.each(['moon:x', 'hour:24', 'hour:-1', 'hour:1e1', 'stall:x', 'site:', 'model:%E0%A4%A', `model:${'x'.repeat(81)}`, ':x', 'x', '', 'hour'])(
    'what is none is left out: %s',
    (text) => expect(groups(text)).toBeUndefined(),
  );
  it('one that is none hinders not the other', () => expect(groups('moon:x,hour:0')).toEqual([{ by: 'hour', key: '0' }]));
});

describe('a saved comparison', () => {
  it('keeps what a comparison understands, and no more', () => {
    expect(viewAddress('?by=site&look=faults&evil=1&counted=first_yes')).toBe('?by=site&look=faults');
    expect(viewAddress('by=site')).toBe('?by=site');
    expect(viewAddress('')).toBe('');
  });
  it('has a name', () => {
    const form = (name: string) => viewForm.safeParse({ id: ID, name, address: '' });
    expect([form('  Rain  ').data?.name, form(' ').success, form('x'.repeat(61)).success]).toEqual(['Rain', false, false]);
  });
});
