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
const spread = (n: number) => ({ low: 0.9, high: 1.2, n, held: 0.8 });
const CAR_SEEN = { curve: [], sessions: 0, spread: spread(7), acSpread: spread(5) };
const LEG: NextLeg = { visitId: VISIT, km: null, reservePct: 10, fallback_km: null, kmh: 80, next: null };

/** What advice is asked about, with what was told before the plug and while it charged. */
function asked(
  before: readonly Step[],
  during: readonly Step[],
  {
    here = {},
    mate = {},
    car = { curve },
    more = [],
    leg = LEG,
    outlooks = {},
    at = T0 + 310_000,
  }: { here?: object; mate?: object; car?: object; more?: readonly MileRecord[]; leg?: NextLeg; outlooks?: object; at?: number } = {},
) {
  const records = byType([
    record('network', NETWORK, { name: 'Otterbrook' }),
    record('site', SITE, { networkId: NETWORK, name: 'Sava Osier', zone: 'Europe/Ljubljana' }),
    post(STALL_A, '1', here),
    post(STALL_B, '2', mate),
    record('car', CAR, { name: 'Heron 62', usableKWh: 62, connectors: ['CCS2'], ...car }),
    ...more,
  ]);
  const look = (s: number, socPct: number): Step => [s, 'reading', { screen: 'stall', socPct, kW: 60 }];
  const arrival: Step[] = [
    [0, 'pulled_in', { siteId: SITE, carId: CAR }],
    [5, 'stall_chosen', { stallId: STALL_A }],
  ];
  const steps: Step[] = [...arrival, ...before, [20, 'plugged'], [30, 'means_shown', CARD], [60, 'power_seen', KW], look(70, 20), ...during, look(300, 26)];
  const visit = deriveVisit(VISIT, story(...steps), payloadProblem);
  const who = { ...phoneWho(), name: 'Ines' };
  const state = {
    who,
    records,
    lately: {},
    usual: {},
    dangers: {},
    outlooks: { sites: outlooks, cars: { [CAR]: CAR_SEEN } },
    visit,
    visitId: VISIT,
  } as unknown as Live;
  return adviceAsked(state, liveFacts(state), leg, at);
}
const bays = (stallId: string, state: string, more = {}): Step => [8, 'survey', { stalls: [{ stallId, state, ...more }] }];

describe('what advice is asked about', () => {
  it('the stall as it is on file, and what was read', () => {
    const plain = asked([], []);
    expect(plain?.setting.stall).toMatchObject({ plateKW: 150, paired: false, deratedKW: null, shareKW: 75 });
    expect(plain?.levels.map((l) => l.socPct)).toEqual([20, 26]);
    expect(plain).toMatchObject({ curved: true, reservePct: 10, distance: 'km', leg: null, next: null, measured: false });
    expect(asked([], [], { leg: { ...LEG, km: 90 } })?.leg).toEqual({ km: 90, name: 'the next 90 km' });
  });
  it('its limits: what is to come, and what was', () => {
    const deadlines = (min: number) => asked([], [], { here: { maxStay_min: 10 }, at: T0 + min * 60_000 })?.deadlines;
    expect(deadlines(8)).toEqual([{ why: 'Max stay ends', in_min: 2 }]);
    expect(deadlines(10)).toEqual([{ why: 'Max stay ends', in_min: 0 }]);
    expect(deadlines(13)).toEqual([{ why: 'Max stay ended', in_min: -3 }]);
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
    expect(derated([], [], { here: { state: { is: 'derated', kW: 60, seenOn: '2025-10-01' } } })).toBe(60);
  });
  it('without a curve the last kW stands for it; without a level nothing is asked', () => {
    const bare = asked([], [], { car: {} });
    expect(bare).toMatchObject({ curved: false });
    expect(bare?.setting.car.curve).toEqual([[0, 60]]);
  });
  const AC = { outlets: [{ connector: 'Type 2', ratedKW: 11, phases: 3, maxA: 16 }], sharing: 'own', cabinet: null, cabinetKW: null };
  it('what alternating current gives does not hang on the curve: nothing is “at best”, and its meter counts what the charger loses', () => {
    const ac = asked([], [], { here: AC, car: { maxACkW: 11 } });
    expect(ac).toMatchObject({ curved: true, battery: { usableKWh: 62, efficiency: 0.9 }, setting: { stall: { kind: 'ac' } } });
    expect(ac?.setting.car.curve).toEqual([]);
    expect([ac?.spread?.n, asked([], [])?.spread?.n]).toEqual([5, 7]);
  });

  it('of a stall with both, without the plug noted, it is that which can give what was shown', () => {
    const both = { ...AC, outlets: [...AC.outlets, { connector: 'CCS2', ratedKW: 150 }] };
    // The looks show 60 kW.
    expect(asked([], [], { here: both, car: { curve, maxACkW: 11 } })?.setting.stall).toMatchObject({ kind: 'dc', plateKW: 150 });
    const plug: Step = [9, 'stall_chosen', { stallId: STALL_A, connectorId: 'Type 2' }];
    expect(asked([plug], [], { here: both, car: { curve, maxACkW: 11 } })?.setting.stall.kind).toBe('ac');
  });

  const [THERE, POST] = [idOf(50), idOf(51)];
  const toThere = (said: object = {}) => [
    record('site', THERE, { networkId: NETWORK, name: 'Hollin Bridge', zone: 'America/Los_Angeles' }),
    record('stall', POST, { siteId: THERE, name: '1', outlets: [{ connector: 'CCS2', ratedKW: 300 }], ...said }),
  ];
  const leg: NextLeg = { ...LEG, kmh: 100, next: { siteId: THERE, km: 50, after_km: 100, direct_km: null } };
  const ahead = (o: Parameters<typeof asked>[2]) => asked([], [], { leg, more: toThere(), ...o })?.next;
  it('a next site: its best stall that this car can use, by its own losses, and how long it drives', () => {
    expect(ahead({})).toMatchObject({ name: 'Hollin Bridge', toThere: { km: 50, min: 30 }, thereToEnd: { km: 100, min: 60 }, direct: null, seenDaysAgo: null });
    expect(ahead({})?.stall).toMatchObject({ stall: { plateKW: 300, kind: 'dc', paired: false, deratedKW: null }, adapter: null });
    expect(ahead({ more: toThere(AC) })?.stall).toMatchObject({ stall: { kind: 'ac' }, efficiency: 0.9 });
    expect(ahead({ more: toThere({ state: { is: 'derated', kW: 60, seenOn: '2025-10-01' } }) })?.stall).toMatchObject({ stall: { deratedKW: 60 } });
  });
  it('nothing is told of a next site without a curve of the car, since the power read here is this stall’s, or without a stall there', () => {
    expect(ahead({ car: {} })?.stall).toBe('no_curve');
    expect(ahead({ car: {}, more: toThere(AC) })?.stall).toMatchObject({ stall: { kind: 'ac' } });
    expect(ahead({ more: toThere({ outlets: [{ connector: 'CHAdeMO', ratedKW: 50 }] }) })?.stall).toBe('no_stall');
    expect(ahead({ more: toThere().slice(0, 1) })?.stall).toBe('no_stall');
    expect(ahead({ more: [] })).toBeNull();
  });
  it('through an adapter where one goes between', () => {
    const held = record('adapter', idOf(52), { name: 'the adapter', from: 'CHAdeMO', to: 'CCS2', approved: true, maxA: 125, maxV: 500 });
    const chademo = toThere({ outlets: [{ connector: 'CHAdeMO', ratedKW: 50, maxA: 125 }] });
    expect(ahead({ more: [...chademo, held] })?.stall).toMatchObject({ stall: { plateKW: 50 }, adapter: { maxA: 125, maxV: 500 } });
  });
  it('the days since it was seen are days there', () => {
    const outlooks = { [THERE]: { n: 3, startShare: 0.9, handshake_min: 1, loss_min: 10, pace: null, paced: 0, lastSeen: '2025-10-13' } };
    const seen = (at: string) => ahead({ outlooks, at: Date.parse(at) })?.seenDaysAgo;
    // Noon of the 14th in Ljubljana is the small hours of the 14th in California.
    expect(seen('2025-10-14T10:00:00Z')).toBe(1);
    expect(seen('2025-10-14T06:00:00Z')).toBe(0);
    expect(seen('2025-10-16T06:59:00Z')).toBe(2);
  });
});
