import type { AttemptPlan, VisitPlan } from '@/core/simulator/simulate-visit';
import type { WrongBill } from './bills';
import { demoId, demoRandom } from './ids';
import { takesThere } from './places';
import { badger, cars, heron, ines, MEMBER, means, networks, type SiteKey, sites } from './scenario';

/** One visit in the demo's own words: where, when, which car, and what happened. */
type Told = {
  at: string;
  site: SiteKey;
  car?: 'heron' | 'badger';
  seen?: VisitPlan['seen'];
  queue_s?: number;
  attempts: AttemptPlan[];
  idle_s?: number;
  leave?: VisitPlan['leave'];
  /** The next visit belongs to the same stop. */
  goesOn?: true;
  /** How the bill was wrong; `null`: none came. */
  billed?: WrongBill | null;
};

const stall = (site: SiteKey, i: number) => sites[site].stalls[i % sites[site].stalls.length] as { id: string; name: string; kW: number };
const pay = (m: keyof typeof means) => ({ kind: means[m].kind, id: means[m].id });
type Power = Extract<AttemptPlan['result'], { is: 'power' }>;

/** A session at stall `i` of a site. */
const charge = (
  site: SiteKey,
  i: number,
  fromPct: number,
  toPct: number,
  handshake_s: number,
  more: Partial<Power> & { by?: keyof typeof means; order?: AttemptPlan['order']; after_s?: number; hold?: string } = {},
): AttemptPlan => {
  const { by = 'card', order, after_s, limits, hold, ...rest } = more;
  return {
    stallId: stall(site, i).id,
    means: { ...pay(by), ...(hold ? { hold } : {}) },
    ...(order ? { order } : {}),
    ...(after_s ? { after_s } : {}),
    result: { is: 'power', handshake_s, fromPct, toPct, limits: limits ?? { stallKW: stall(site, i).kW }, ...rest },
  };
};
const fails = (
  site: SiteKey,
  i: number,
  code: string,
  after_s: number,
  more: { by?: keyof typeof means; beforeAct?: boolean; after?: number } = {},
): AttemptPlan => ({
  stallId: stall(site, i).id,
  means: pay(more.by ?? 'card'),
  ...(more.after ? { after_s: more.after } : {}),
  result: { is: 'fault', code, after_s, ...(more.beforeAct ? { beforeAct: true } : {}) },
});
const refused = (site: SiteKey, i: number, code: string, shows: number, by: keyof typeof means = 'card'): AttemptPlan => ({
  stallId: stall(site, i).id,
  means: pay(by),
  result: { is: 'refused', code, shows },
});
const claims = (site: SiteKey, i: number, wait_s: number, thenFault = true): AttemptPlan => ({
  stallId: stall(site, i).id,
  means: pay('card'),
  result: { is: 'claims', wait_s, thenFault },
});

/** The visits that are told one by one; between them they reach every state a visit can be in. */
const TOLD: Told[] = [
  { at: '2024-04-11T08:12', site: 'hollin', attempts: [charge('hollin', 0, 22, 80, 14)] },
  { at: '2024-04-26T15:40', site: 'logarnik', attempts: [refused('logarnik', 0, 'card_refused', 2), charge('logarnik', 0, 31, 74, 58, { by: 'rfid' })] },
  { at: '2024-05-23T11:05', site: 'brod', seen: { free: 0, total: 1 }, queue_s: 1260, attempts: [charge('brod', 0, 19, 62, 71)] },
  { at: '2024-06-14T09:31', site: 'zdravec', attempts: [fails('zdravec', 1, 'cable_check', 38), charge('zdravec', 0, 34, 70, 44)] },
  {
    at: '2024-07-09T17:22',
    site: 'vrba',
    car: 'badger',
    attempts: [charge('vrba', 1, 15, 78, 29, { neighbour: true, limits: { stallKW: 150, shared: { from_s: 600, kW: 75 } } })],
    idle_s: 420,
  },
  {
    at: '2024-08-02T13:15',
    site: 'logarnik',
    attempts: [fails('logarnik', 2, 'timed_out', 92), fails('logarnik', 1, 'reader_dead', 12, { beforeAct: true })],
    leave: 'gave_up',
    billed: null,
  },
  { at: '2024-08-29T10:02', site: 'lipa', attempts: [charge('lipa', 0, 40, 81, 39, { late: true })] },
  { at: '2024-09-17T16:48', site: 'kamen', attempts: [charge('kamen', 0, 11, 80, 9, { by: 'auto' })] },
  { at: '2024-10-21T07:55', site: 'zdravec', attempts: [claims('zdravec', 1, 210), charge('zdravec', 1, 28, 66, 52)] },
  { at: '2024-11-15T12:20', site: 'drava', attempts: [charge('drava', 0, 24, 79, 33, { limits: { stallKW: 150, factor: 0.55 } })] },
  { at: '2024-12-06T18:33', site: 'brod', seen: { free: 0, total: 1 }, queue_s: 1500, attempts: [], leave: 'queue', billed: null },
  { at: '2025-01-10T08:40', site: 'brod', attempts: [claims('brod', 0, 150, false)], leave: 'gave_up', billed: null },
  {
    at: '2025-01-28T14:10',
    site: 'vrba',
    attempts: [
      charge('vrba', 2, 20, 41, 34, { endFault: 'stopped_by_itself', limits: { stallKW: 150, factor: 0.5 } }),
      charge('vrba', 2, 41, 76, 30, { after_s: 95, limits: { stallKW: 150, factor: 0.6 } }),
    ],
  },
  // Tax was added to what had it.
  { at: '2025-02-06T09:20', site: 'quay', attempts: [charge('quay', 0, 25, 72, 20)], billed: { times: '1.20' } },
  { at: '2025-02-19T09:24', site: 'logarnik', attempts: [claims('logarnik', 0, 260, false)], leave: 'called_away', billed: null },
  { at: '2025-03-12T11:47', site: 'hollin', attempts: [charge('hollin', 1, 26, 72, 12, { paused: { at_s: 400, for_s: 85 } })] },
  { at: '2025-04-04T15:03', site: 'lipa', attempts: [refused('lipa', 1, 'app_unreachable', 3, 'app'), charge('lipa', 1, 30, 69, 47)] },
  { at: '2025-05-06T10:36', site: 'drava', car: 'badger', attempts: [charge('drava', 1, 33, 80, 27)], billed: { over: '3.10' } },
  { at: '2025-06-18T19:12', site: 'kamen', car: 'badger', attempts: [charge('kamen', 1, 14, 80, 10)], idle_s: 900 },
  { at: '2025-07-15T13:58', site: 'zdravec', attempts: [charge('zdravec', 0, 45, 58, 40, { stop: 'none' })], leave: null, billed: null },
  {
    at: '2025-08-20T08:15',
    site: 'logarnik',
    attempts: [fails('logarnik', 0, 'start_error', 41), fails('logarnik', 0, 'start_error', 44), charge('logarnik', 2, 18, 70, 66)],
    // Each try without power was billed its start.
    billed: { over: '2.00' },
  },
  { at: '2025-09-22T16:20', site: 'hollin', attempts: [charge('hollin', 3, 21, 88, 11)] },
  { at: '2025-10-03T12:41', site: 'zdravec', attempts: [fails('zdravec', 1, 'timed_out', 75), charge('zdravec', 0, 47, 73, 46)] },
  { at: '2025-10-07T17:05', site: 'kamen', attempts: [charge('kamen', 0, 9, 84, 9, { by: 'auto' })], idle_s: 160 },
  {
    at: '2025-10-09T11:30',
    site: 'logarnik',
    seen: { free: 0, total: 3, outOfOrder: 1 },
    queue_s: 760,
    attempts: [fails('logarnik', 1, 'timed_out', 88), refused('logarnik', 1, 'card_refused', 1), fails('logarnik', 0, 'reader_dead', 25, { beforeAct: true })],
    leave: 'gave_up',
    goesOn: true,
    billed: null,
  },
  { at: '2025-10-09T12:31', site: 'lipa', attempts: [charge('lipa', 0, 22, 58, 41)] },
  { at: '2025-10-11T09:18', site: 'hollin', attempts: [charge('hollin', 2, 30, 75, 12)] },
  {
    at: '2025-10-14T11:52',
    site: 'vrba',
    seen: { free: 2, total: 4 },
    attempts: [
      fails('vrba', 1, 'start_error', 39),
      fails('vrba', 1, 'timed_out', 62),
      charge('vrba', 3, 18, 80, 33.4, { after_s: 150, order: 'card_first', neighbour: true, limits: { stallKW: 150, shared: { from_s: 465, kW: 75 } } }),
    ],
    idle_s: 300,
    billed: { over: '0.46' },
  },
];

/** Where each network's ordinary stops are: the first of a row are nearest to the workshop. */
const ROUNDS: Record<keyof typeof networks, SiteKey[]> = {
  copperbeech: ['hollin', 'kamen', 'slope', 'hollin', 'ridge', 'lavant'],
  saltmarsh: ['vrba', 'drava', 'dike', 'vrba', 'reeds', 'gail'],
  bluebarn: ['lipa', 'zdravec', 'granary', 'kiln', 'barns'],
  ferrywell: ['logarnik', 'brod', 'ropeway', 'locks', 'pontoon'],
  otterbrook: ['quay', 'osier', 'millrace', 'gurk', 'holt'],
  hollinPublic: ['market', 'belfry', 'library', 'baths', 'forge'],
};
/** Each month's stops by network; the last two take turns. */
const EVERY_MONTH = ['copperbeech', 'saltmarsh', 'bluebarn', 'ferrywell'] as const;
const MONTHS = 18;
const DAY_MS = 86_400_000;
/** A wall box gives what the car takes from alternating current. */
const ONBOARD_KW = 11;

/** The visits in between, as the networks' characters would have them. */
function ordinary(): Told[] {
  const first = Date.parse('2024-04-14T07:00:00Z');
  return Array.from({ length: MONTHS }, (_, month) =>
    [...EVERY_MONTH, month % 2 === 0 ? ('otterbrook' as const) : ('hollinPublic' as const)].map((network, i) => ({ network, month, i })),
  )
    .flat()
    .map(({ network, month, i }): Told => {
      const n = networks[network];
      const round = ROUNDS[network];
      const nth = i < EVERY_MONTH.length ? month : Math.floor(month / 2);
      const site = round[nth % round.length] as SiteKey;
      // Some days after the month's visit before, between seven and six; nobody tunes bells at night.
      const at = new Date(
        first +
          (month * 30 + i * 5 + Math.floor(demoRandom() * 3)) * DAY_MS +
          Math.floor(demoRandom() * 10) * 3_600_000 +
          Math.floor(demoRandom() * 3600) * 1000,
      );
      const day = at.toISOString().slice(0, 10);
      const ac = network === 'hollinPublic';
      const from = ac ? 40 + Math.floor(demoRandom() * 20) : 14 + Math.floor(demoRandom() * 26);
      const to = ac ? from + 12 + Math.floor(demoRandom() * 8) : 62 + Math.floor(demoRandom() * 22);
      const handshake = n.handshake_s * (0.75 + demoRandom() * 0.6);
      const tag = demoRandom() < 0.25 && takesThere(site).includes('rfid');
      const held = network === 'ferrywell' && !tag ? { hold: '40.00' } : {};
      const session = charge(site, nth, from, to, handshake, { by: tag ? 'rfid' : 'card', ...(ac ? { limits: { stallKW: ONBOARD_KW } } : {}), ...held });
      const failed = demoRandom() >= n.startsFirst;
      const attempts = failed ? [fails(site, nth, demoRandom() < 0.5 ? 'timed_out' : 'start_error', 45, { by: tag ? 'rfid' : 'card' }), session] : [session];
      const billed: WrongBill | undefined = day >= '2025-07-01' && day <= MEMBER.until && network === MEMBER.network ? { guest: true } : undefined;
      return {
        at: at.toISOString().slice(0, 16),
        site,
        attempts,
        ...(demoRandom() < 0.3 ? { idle_s: 60 + Math.floor(demoRandom() * 400) } : {}),
        ...(billed ? { billed } : {}),
      };
    });
}

/** All visits of the demo in the order of their days, and how the bills of some were wrong. */
export function demoVisits(): { plans: VisitPlan[]; wrong: Map<string, WrongBill> } {
  const told = [...TOLD, ...ordinary()].sort((a, b) => (a.at < b.at ? -1 : 1));
  const plans = told.map((v): VisitPlan => {
    const at = Date.parse(`${v.at}:08.412Z`);
    const car = v.car ?? 'heron';
    return {
      visitId: demoId(at),
      householdId: ines.householdId,
      personId: ines.personId,
      deviceId: ines.deviceId,
      life: demoId(at),
      at,
      zone: sites[v.site].zone,
      siteId: sites[v.site].id,
      carId: cars[car].id,
      car: car === 'heron' ? heron : badger,
      ...(v.seen ? { seen: v.seen } : {}),
      ...(v.queue_s ? { queue_s: v.queue_s } : {}),
      attempts: v.attempts,
      ...(v.idle_s ? { idle_s: v.idle_s } : {}),
      leave: v.leave === undefined ? 'enough' : v.leave,
      // The amount is that of the price on file: it is put in once the visit is played.
      bill: (kWh, sessions) => (v.billed === null || sessions === 0 ? null : { amount: '0', currency: ines.currency, kWh }),
    };
  });
  const wrong = new Map(told.flatMap((v, i): [string, WrongBill][] => (v.billed ? [[plans[i]?.visitId ?? '', v.billed]] : [])));
  return { plans: plans.map((p, i) => (told[i]?.goesOn ? { ...p, continuesVisit: plans[i + 1]?.visitId } : p) as VisitPlan), wrong };
}
