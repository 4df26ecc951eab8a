import { deriveVisit } from '../visit/derive';
import { CARD, IN, KW, STALL_A, type Step, story, T0, VISIT } from '../visit/fixtures/story';
import { payloadProblem } from '../visit/payloads';
import { documentOf } from './cdr-bills';
import { cdrOf } from './fixtures/cdr';
import { networkRecords } from './network-record';

const iso = (s: number) => new Date(T0 + s * 1000).toISOString();
const cdr = (more: object = {}) =>
  cdrOf(
    { start: T0 + 120_000, end: T0 + 920_000 },
    {
      charging_periods: [
        { start_date_time: iso(120), dimensions: [{ type: 'ENERGY', volume: 10 }] },
        {
          start_date_time: iso(700),
          dimensions: [
            { type: 'PARKING_TIME', volume: 0.05 },
            { type: 'MAX_CURRENT', volume: 200 },
          ],
        },
      ],
      total_time: 0.05,
      total_parking_time: 0.05,
      ...more,
    },
  );
const START: Step[] = [IN, [20, 'stall_chosen', { stallId: STALL_A }], [60, 'plugged'], [70, 'means_shown', CARD], [100, 'power_seen', KW]];
const ENDED: Step[] = [
  [700, 'power_gone', { why: 'asked' }],
  [702, 'reading', { screen: 'stall', kWh: '9.8' }],
  [760, 'unplugged'],
];
const bill = (beside: object): Step => [1000, 'bill', { sessions: [], amount: '5', currency: 'EUR', kWh: '10', state: 'charged', ...beside }];
const records = (document: unknown, steps: Step[] = [...START, ...ENDED]) =>
  networkRecords(deriveVisit(VISIT, story(...steps, bill({ cdr: { document } })), payloadProblem));

describe('a network’s record beside the visit', () => {
  it('says each figure as the network has it and as it was recorded here', () => {
    const [r] = records(JSON.stringify(cdr()));
    expect(r?.figures).toEqual([
      { what: 'Start', network: '13:54:00', own: '13:53:40' },
      { what: 'End', network: '14:07:20', own: '14:04:40' },
      { what: 'Energy', network: '10.0 kWh', own: '9.8 kWh' },
      { what: 'Time', network: '3:00', own: '11:00' },
      { what: 'of that parked', network: '3:00', own: null },
    ]);
    expect(r).toMatchObject({ id: 'SI*BLU*C-1', evse: 'SI*BLU*1', said: [], signed: null });
    expect(r?.periods).toMatchObject([
      { kWh: '10', parking_min: null, other: [] },
      { kWh: null, parking_min: 3, other: [{ type: 'MAX_CURRENT', volume: '200' }] },
    ]);
  });
  it('says the day where not all is of one', () => {
    const [r] = records(JSON.stringify(cdr({ end_date_time: iso(86_400 + 920), total_time: 24.2 })));
    expect(r?.figures.slice(0, 2)).toEqual([
      { what: 'Start', network: '14 Oct, 13:54:00', own: '14 Oct, 13:53:40' },
      { what: 'End', network: '15 Oct, 14:07:20', own: '14 Oct, 14:04:40' },
    ]);
  });
  it('says nothing of what was not recorded here', () => {
    const own = (...steps: Step[]) => records(JSON.stringify(cdr()), steps)[0]?.figures.map((f) => f.own);
    expect(own(IN)).toEqual([null, null, null, null, null]);
    expect(own(...START)).toEqual(['13:53:40', null, null, null, null]);
  });
  it('names what does not add up by its place', () => {
    expect(records(JSON.stringify(cdr({ total_energy: 12 })))[0]?.said).toEqual(['total_energy: does not add up']);
  });
  it('is none where a bill was typed, or what came with it is no record', () => {
    expect(networkRecords(deriveVisit(VISIT, story(...START, ...ENDED, bill({})), payloadProblem))).toEqual([]);
    for (const odd of [undefined, 3, '', '{', '[]', '{"id":1}', JSON.stringify([cdr(), cdr({ id: 'C-2' })])]) expect(records(odd)).toEqual([]);
    expect([documentOf({ cdr: 'x' } as never), documentOf({ cdr: null } as never), documentOf({} as never)]).toEqual([null, null, null]);
  });
});
