import { type MileRecord, recordItem } from '../records/record-schema';
import { idOf } from './fixtures/story';
import { statesSeen } from './states-seen';

type State = NonNullable<MileRecord<'stall'>['fields']['state']>;
const stall = (n: number, state: State | null = null): MileRecord<'stall'> => ({
  ...recordItem('stall', idOf(n), { siteId: idOf(900), name: String(n), outlets: [{ connector: 'CCS2', ratedKW: 150 }], state }),
  rev: 4,
  archived: false,
});
const was = (is: State['is'], seenOn: string, kW: number | null = null): State => ({ is, kW, seenOn, by: 'Tone' });
const bay = (n: number, state: 'free' | 'charging' | 'dark' | 'closed' | 'derated' | 'not_looked', kW?: number) => ({
  stallId: idOf(n),
  state,
  ...(kW === undefined ? {} : { kW }),
});
const seen = (bays: ReturnType<typeof bay>[], stalls: MileRecord<'stall'>[]) =>
  statesSeen(bays, stalls, '2025-10-15', 'Ines').map((i) => [i.id, i.fields.state?.is, i.fields.state?.kW]);

describe('what a look at the bays says of the stalls', () => {
  it('dark and closed are closed, derated is so to the kW that were read, by whom and when', () => {
    const items = statesSeen([bay(1, 'dark'), bay(2, 'closed'), bay(3, 'derated', 60)], [stall(1), stall(2), stall(3)], '2025-10-15', 'Ines');
    expect(items.map((i) => i.fields.state)).toEqual([
      { is: 'closed', kW: null, seenOn: '2025-10-15', by: 'Ines' },
      { is: 'closed', kW: null, seenOn: '2025-10-15', by: 'Ines' },
      { is: 'derated', kW: 60, seenOn: '2025-10-15', by: 'Ines' },
    ]);
    expect(items[0]).toMatchObject({ type: 'stall', baseRev: 4, archived: false });
  });
  it('a car that charges opens a closed one; a free bay says nothing, nor does one that was not looked at', () => {
    const closed = was('closed', '2025-09-01');
    expect(seen([bay(1, 'charging'), bay(2, 'free'), bay(3, 'not_looked')], [stall(1, closed), stall(2, closed), stall(3, closed)])).toEqual([
      [idOf(1), 'working', null],
    ]);
    expect(seen([bay(1, 'charging')], [stall(1, was('derated', '2025-09-01', 60))])).toEqual([]);
    expect(seen([bay(1, 'charging')], [stall(1)])).toEqual([]);
  });
  it('nothing is written twice on one day, and a later look renews the date', () => {
    expect(seen([bay(1, 'dark')], [stall(1, was('closed', '2025-10-15'))])).toEqual([]);
    expect(seen([bay(1, 'dark')], [stall(1, was('closed', '2025-10-01'))])).toEqual([[idOf(1), 'closed', null]]);
  });
  it('what it cannot know it leaves alone: derated without kW, a stall not yet open, a stall unknown here', () => {
    expect(seen([bay(1, 'derated'), bay(2, 'dark'), bay(3, 'dark')], [stall(1), stall(2, was('not yet open', '2025-09-01'))])).toEqual([]);
  });
});
