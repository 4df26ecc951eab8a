import { memory } from '@/client/store/fixtures/memory-storage';
import { phoneWho } from '@/client/store/fixtures/phone-who';
import type { NextLeg } from '@/client/store/habits';
import { byType } from '@/client/store/records-by-type';
import { type MileRecord, recordItem } from '@/core/records/record-schema';
import type { RecordType } from '@/core/records/record-types';
import { deriveVisit } from '@/core/visit/derive';
import { CARD, idOf, KW, SITE, STALL_A, STALL_B, type Step, story, T0, VISIT } from '@/core/visit/fixtures/story';
import { payloadProblem } from '@/core/visit/payloads';
import { adviceAsked } from './advice';
import { type Live, liveFacts } from './live-facts';

beforeEach(() => memory.clear());

const [NETWORK, CAR] = [idOf(40), idOf(41)];
const record = <T extends RecordType>(type: T, id: string, said: object): MileRecord =>
  ({ type, id, rev: 1, archived: false, fields: recordItem(type, id, said as never).fields }) as MileRecord;
const post = (id: string, name: string, more: object) =>
  record('stall', id, { siteId: SITE, name, outlets: [{ connector: 'CCS2', ratedKW: 150 }], cabinet: 'A', sharing: 'shared', cabinetKW: 150, ...more });
const curve = [
  [0, 120],
  [100, 120],
];
const LEG: NextLeg = { visitId: VISIT, km: null, reservePct: 10, fallback_km: null, kmh: 80, next: null };

/** What advice is asked about, with what was told before the plug and while it charged. */
function asked(before: readonly Step[], during: readonly Step[], { mate = {}, car = { curve } }: { mate?: object; car?: object } = {}) {
  const records = byType([
    record('network', NETWORK, { name: 'Otterbrook' }),
    record('site', SITE, { networkId: NETWORK, name: 'Sava Osier', zone: 'Europe/Ljubljana' }),
    post(STALL_A, '1', {}),
    post(STALL_B, '2', mate),
    record('car', CAR, { name: 'Heron 62', usableKWh: 62, connectors: ['CCS2'], ...car }),
  ]);
  const look = (s: number, socPct: number): Step => [s, 'reading', { screen: 'stall', socPct, kW: 60 }];
  const arrival: Step[] = [
    [0, 'pulled_in', { siteId: SITE, carId: CAR }],
    [5, 'stall_chosen', { stallId: STALL_A }],
  ];
  const steps: Step[] = [...arrival, ...before, [20, 'plugged'], [30, 'means_shown', CARD], [60, 'power_seen', KW], look(70, 20), ...during, look(300, 26)];
  const visit = deriveVisit(VISIT, story(...steps), payloadProblem);
  const who = { ...phoneWho(), name: 'Ines' };
  const state = { who, records, lately: {}, usual: {}, dangers: {}, outlooks: { sites: {}, cars: {} }, visit, visitId: VISIT } as unknown as Live;
  return adviceAsked(state, liveFacts(state), LEG, T0 + 310_000);
}
const bays = (stallId: string, state: string, more = {}): Step => [8, 'survey', { stalls: [{ stallId, state, ...more }] }];

describe('what advice is asked about', () => {
  it('the stall as it is on file, and what was read', () => {
    const plain = asked([], []);
    expect(plain?.setting.stall).toMatchObject({ plateKW: 150, paired: false, deratedKW: null, shareKW: 75 });
    expect(plain?.levels.map((l) => l.socPct)).toEqual([20, 26]);
    expect(plain).toMatchObject({ curved: true, reservePct: 10, leg: null, next: null, measured: false });
  });
  it('a neighbour on the same cabinet: noted, or seen charging as the bays were looked at, until it leaves', () => {
    const paired = (...a: Parameters<typeof asked>) => asked(...a)?.setting.stall.paired;
    expect(paired([], [[100, 'change', { what: 'neighbour_in' }]])).toBe(true);
    expect(paired([bays(STALL_B, 'charging')], [])).toBe(true);
    expect(paired([bays(STALL_B, 'charging')], [[100, 'change', { what: 'neighbour_out' }]])).toBe(false);
    expect(paired([bays(STALL_B, 'charging'), [10, 'change', { what: 'neighbour_out' }]], [])).toBe(false);
    expect(paired([bays(STALL_B, 'idle_car')], [])).toBe(false);
    // Beside it, but on a cabinet of its own.
    expect(paired([bays(STALL_B, 'charging')], [], { mate: { cabinet: 'B' } })).toBe(false);
  });
  it('a derate: noted, or seen on its screen before', () => {
    const derated = (...a: Parameters<typeof asked>) => asked(...a)?.setting.stall.deratedKW;
    expect(derated([bays(STALL_A, 'derated', { kW: 60 })], [])).toBe(60);
    expect(derated([bays(STALL_A, 'derated', { kW: 60 })], [[100, 'change', { what: 'derate', value: 40 }]])).toBe(40);
    expect(derated([bays(STALL_B, 'derated', { kW: 60 })], [])).toBeNull();
  });
  it('without a curve the last kW stands for it; without a level nothing is asked', () => {
    const bare = asked([], [], { car: {} });
    expect(bare).toMatchObject({ curved: false });
    expect(bare?.setting.car.curve).toEqual([[0, 60]]);
  });
});
