import type { Connector } from '@/core/records/connector';
import { type RecordItem, recordItem } from '@/core/records/record-schema';
import { placeId } from './ids';
import { networks, sites } from './scenario';

/**
 * What the household has noted of sites and stalls: the plates, cabinets, states and access notes. All of it invented.
 */
const FOUNDED = Date.parse('2024-04-02T06:00:00Z');
const made = () => placeId(FOUNDED);
type Said = Record<string, unknown>;

const dc = (connector: Connector, ratedKW: number, more: Said = {}) => ({ connector, ratedKW, cable: 'tethered', ...more });
const ac = (ratedKW: number, cable = 'own cable') => ({ connector: 'Type 2', ratedKW, phases: 3, maxA: ratedKW >= 43 ? 63 : 32, cable });
const pair = (cabinet: string, sharing: 'shared' | 'one at a time', cabinetKW?: number) => ({ cabinet, sharing, ...(cabinetKW ? { cabinetKW } : {}) });
const REAR = ['rear', 'rear left', 'rear right'];
const seen = (is: string, seenOn: string, kW?: number) => ({ state: { is, seenOn, by: 'Ines Kolar', ...(kW ? { kW } : {}) } });

const COPPER = ['contactless', 'app', 'autocharge'];
/** What is known of the sites, beyond name and place. */
const KNOWN: Record<keyof typeof sites, Said> = {
  hollin: {
    entrance: 'First left after the bridge, behind the farm shop',
    openingHours: 'all day',
    meansAccepted: ['contactless', 'phone_wallet', 'app', 'rfid', 'autocharge'],
    helpline: '+386 1 555 0142',
    shelter: 'canopy over 1–4',
    light: 'good, lamps until dawn',
    safeAtNight: 'yes',
    toilets: 'in the farm shop, to 19:00',
    food: 'bakery, 80 m',
    shop: 'farm shop',
    bins: true,
    squeegee: true,
  },
  kamen: {
    entrance: 'Beside the old toll house; the ramp is steep for trailers',
    meansAccepted: ['contactless', 'app', 'autocharge', 'plug_and_charge'],
    heightLimit_m: 3.2,
    light: 'one lamp, good enough',
    safeAtNight: 'partly',
    toilets: 'none',
  },
  vrba: {
    entrance: 'From the service road, past the tyre shop',
    direction: 'southbound only',
    openingHours: 'all day',
    meansAccepted: ['contactless', 'card_insert', 'app', 'rfid', 'plug_and_charge'],
    orderThatWorks: 'start, then card; the printed order is wrong',
    maxStay_min: 60,
    overstay: '10.00 over 70 min',
    overstayAfter_min: 70,
    idleGrace_min: 3,
    idle: '0.20 a minute after 3',
    helpline: '080 555 0142',
    shelter: 'canopy over 1–4',
    light: 'good, felt safe at 22:00',
    safeAtNight: 'yes',
    toilets: 'in the café, to 20:00',
    food: 'bakery, 80 m',
    bins: true,
    note: 'Stall 3 has been held to 50 kW since June; the helpline knows. Wasps in the holster of 5.',
  },
  drava: {
    entrance: 'Through the meadow car park, last row',
    meansAccepted: ['contactless', 'rfid', 'app'],
    light: 'none',
    safeAtNight: 'no',
    shelter: 'none',
    note: 'Prices with Austrian tax.',
  },
  zdravec: {
    entrance: 'Behind the mill wheel',
    meansAccepted: ['app', 'contactless', 'web'],
    orderThatWorks: 'app first, then the plug',
    light: 'good',
    food: 'inn at the mill, closed Mondays',
    toilets: 'in the inn',
  },
  lipa: { entrance: 'Left of the barn; both bays have names, not numbers', meansAccepted: ['app', 'contactless'], light: 'some', shop: 'seeds and tools' },
  logarnik: {
    entrance: 'East end of the depot, mind the lorries',
    openingHours: '05:00–23:00',
    barrier: 'closed at night, code on the post',
    meansAccepted: ['contactless', 'rfid', 'in_app_account', 'remote'],
    helpline: '+386 1 555 0177',
    light: 'some',
    safeAtNight: 'partly',
  },
  brod: {
    entrance: 'On the landing, turn before the ferry ramp',
    meansAccepted: ['contactless', 'in_app_account'],
    idle: '0.35 a minute after 5',
    idleGrace_min: 5,
    light: 'good',
    food: 'kiosk in summer',
  },
  quay: { entrance: 'Down to the quay, keep left', meansAccepted: ['contactless', 'web'], orderThatWorks: 'card, then plug', shelter: 'none', light: 'some' },
  osier: { meansAccepted: ['contactless', 'rfid', 'app'], openingHours: '06:00–22:00' },
  forge: {
    entrance: 'Council yard, through the arch',
    heightLimit_m: 2.3,
    meansAccepted: ['contactless', 'web'],
    maxStay_min: 120,
    light: 'good',
    note: 'Free until July 2025, while the council tried it out.',
  },
  belfry: { entrance: 'Behind the church, two bays by the wall', meansAccepted: ['contactless', 'web', 'remote'], maxStay_min: 60 },
  gail: { meansAccepted: ['contactless', 'rfid', 'plug_and_charge'], entrance: 'Second gate of the orchard' },
  kiln: {
    entrance: 'At the lime kiln, from the north only',
    direction: 'northbound only',
    meansAccepted: ['app', 'contactless', 'plug_and_charge'],
    light: 'good',
    toilets: 'at the lay-by',
  },
  slope: { entrance: 'Above the beech wood, first car park', meansAccepted: COPPER, light: 'good', toilets: 'none', bins: true },
  ridge: { entrance: 'At the top of the pass', meansAccepted: COPPER, light: 'none', shelter: 'none', food: 'hut, weekends' },
  lavant: { entrance: 'Beside the weir, over the small bridge', meansAccepted: COPPER, heightLimit_m: 2.8, note: 'Prices with Austrian tax.' },
  dike: { entrance: 'Along the dike, second ramp', meansAccepted: ['contactless', 'rfid', 'app'], light: 'some', food: 'fish fryer, Thursday to Sunday' },
  reeds: { entrance: 'Behind the fire station', meansAccepted: ['contactless', 'rfid', 'app'], light: 'good', toilets: 'in the fire station, on asking' },
  granary: { entrance: 'Under the old granary; low beam', heightLimit_m: 2.4, meansAccepted: ['app', 'contactless'], light: 'some' },
  barns: { entrance: 'Third barn from the road', meansAccepted: ['app', 'contactless'], light: 'good', shop: 'farm shop, closed Sundays' },
  ropeway: {
    entrance: 'Valley station, lower car park',
    meansAccepted: ['contactless', 'in_app_account'],
    openingHours: '06:00–22:00',
    light: 'good',
    toilets: 'in the station',
  },
  pontoon: { entrance: 'On the river side, past the boats', meansAccepted: ['contactless', 'in_app_account'], light: 'none', safeAtNight: 'partly' },
  locks: { entrance: 'At the ninth lock', meansAccepted: ['contactless', 'in_app_account'], helpline: '+386 1 555 0177', light: 'some' },
  millrace: { entrance: 'Left of the mill, cobbles', meansAccepted: ['contactless', 'web'], shelter: 'roof over 1', light: 'good' },
  gurk: { entrance: 'Before the ford; may be under water in spring', meansAccepted: ['contactless', 'rfid', 'app'], note: 'Prices with Austrian tax.' },
  holt: { entrance: 'One post by the trout farm', meansAccepted: ['contactless', 'web'], light: 'none' },
  market: {
    entrance: 'Market square, free on market days only after 14:00',
    meansAccepted: ['contactless', 'web'],
    maxStay_min: 180,
    toilets: 'at the town hall',
  },
  baths: { entrance: 'In front of the old baths', meansAccepted: ['contactless', 'web'], maxStay_min: 180, food: 'café in the baths' },
  library: { entrance: 'Library yard, ring for the gate', barrier: 'gate, opened until 20:00', meansAccepted: ['contactless', 'web'], maxStay_min: 180 },
};

/** Ways to pay that a site is known to take. */
export const takesThere = (site: keyof typeof sites): readonly string[] => KNOWN[site].meansAccepted as string[];

/** What is known of the stalls that the visits name, by site and post. */
const STALLS: Partial<Record<keyof typeof sites, Record<string, Said>>> = {
  hollin: {
    1: pair('1', 'shared', 300),
    2: pair('1', 'shared', 300),
    3: pair('2', 'shared', 300),
    4: pair('2', 'shared', 300),
  },
  kamen: { 1: { sharing: 'own', pullThrough: true, trailer: true, portsReached: [...REAR, 'left side', 'right side'] }, 2: { sharing: 'own' } },
  vrba: {
    1: { ...pair('A', 'one at a time'), cableReach_m: 3, portsReached: REAR, note: 'Cable just reaches: reverse in.' },
    2: { ...pair('A', 'one at a time'), cableReach_m: 3, portsReached: REAR },
    3: { ...pair('B', 'shared', 150), ...seen('derated', '2025-10-14', 50) },
    4: { ...pair('B', 'shared', 150), stepFree: true, screenHeight_cm: 120 },
  },
  drava: { A: pair('A', 'shared', 150), B: pair('A', 'shared', 150) },
  zdravec: { 1: { sharing: 'own' }, 2: { sharing: 'own', ...seen('derated', '2025-10-03', 60) } },
  lipa: {
    North: { otherName: 'BB-0417', sharing: 'own', outlets: [dc('CCS2', 100, { appKW: 120, maxA: 250, maxV: 500 })] },
    South: { otherName: 'BB-0418', sharing: 'own', outlets: [dc('CCS2', 100, { appKW: 120, maxA: 250, maxV: 500 })] },
  },
  logarnik: { 1: { ...seen('closed', '2025-10-09') }, 2: {}, 3: { sharing: 'own' } },
  brod: { 1: { sharing: 'own', outlets: [dc('CCS2', 120, { maxA: 300, maxV: 1000 })] } },
  quay: { 1: pair('1', 'one at a time'), 2: pair('1', 'one at a time') },
  osier: { 1: { outlets: [dc('CCS2', 160), dc('CHAdeMO', 63, { maxA: 125, maxV: 500 })] } },
  forge: { 1: { sharing: 'own' }, 2: { sharing: 'own' } },
  belfry: { Left: { outlets: [ac(22), { connector: 'Household socket', ratedKW: 2.3, phases: 1, maxA: 10, cable: 'own cable' }] } },
  gail: { 1: { sharing: 'own' }, 2: { sharing: 'own' } },
  kiln: Object.fromEntries(
    [1, 2, 3, 4].map((n) => [
      n,
      { outlets: [dc('CCS2', 300, { maxA: 500, minV: 150, maxV: 1000 })], ...pair(n < 3 ? 'A' : 'B', 'shared', 360), pullThrough: n === 4, trailer: n === 4 },
    ]),
  ),
  ridge: { 1: pair('1', 'shared', 300), 2: pair('1', 'shared', 300) },
  barns: { 1: pair('1', 'shared', 150), 2: pair('1', 'shared', 150) },
  locks: { 2: { ...seen('derated', '2025-09-04', 30) } },
  gurk: { 1: { sharing: 'own' }, 2: { sharing: 'own' } },
};

/** Further stalls at those sites. */
const MORE: Partial<Record<keyof typeof sites, [string, Said][]>> = {
  hollin: [
    ['5', { outlets: [dc('CCS2', 150)], ...pair('3', 'shared', 150) }],
    ['6', { outlets: [dc('CCS2', 150)], ...pair('3', 'shared', 150) }],
    ['7', { outlets: [ac(22)], sharing: 'own' }],
    ['8', { outlets: [ac(22)], sharing: 'own' }],
  ],
  kamen: [
    ['3', { outlets: [dc('CCS2', 200)], ...pair('2', 'shared', 200) }],
    ['4', { outlets: [dc('CCS2', 200)], ...pair('2', 'shared', 200) }],
  ],
  vrba: [
    ['5', { outlets: [dc('CHAdeMO', 50, { maxA: 125, maxV: 500 })], sharing: 'own', note: 'Wasps in the holster.' }],
    ['6', { outlets: [dc('CCS2', 150)], sharing: 'own', ...seen('closed', '2025-10-09') }],
  ],
  zdravec: [
    ['3', { outlets: [ac(22)], sharing: 'own' }],
    ['4', { outlets: [dc('CCS2', 150)], ...seen('not yet open', '2025-10-03') }],
  ],
  logarnik: [['4', { outlets: [dc('CCS2', 50, { maxA: 125, maxV: 500 }), dc('CHAdeMO', 50, { maxA: 125, maxV: 500 })], sharing: 'own' }]],
  brod: [['2', { outlets: [dc('CHAdeMO', 50, { maxA: 120, maxV: 500 })], sharing: 'own' }]],
  osier: [['3', { outlets: [ac(22)] }]],
  gail: [['3', { outlets: [dc('CHAdeMO', 50, { maxA: 125, maxV: 500 })], sharing: 'own' }]],
  kiln: [
    ['5', { outlets: [dc('NACS', 150)], sharing: 'own', builtInAdapter: 'CCS2' }],
    ['6', { outlets: [dc('CCS2', 300)], ...seen('not yet open', '2025-09-22') }],
  ],
};

/** Networks, sites and stalls in the order in which one refers to another. @param photo SHA-256 of the picture of Vrba's entrance, when there is one */
export function placeRecords(photo: string | null): RecordItem[] {
  const out: RecordItem[] = [];
  const lines: Record<string, Said> = { saltmarsh: { helpline: '+386 1 555 0131' }, copperbeech: { helpline: '+386 1 555 0120' } };
  for (const [key, n] of Object.entries(networks)) out.push(recordItem('network', n.id, { name: n.name, ...lines[key] }));
  for (const [k, s] of Object.entries(sites)) {
    const key = k as keyof typeof sites;
    out.push(
      recordItem('site', s.id, {
        networkId: networks[s.network].id,
        name: s.name,
        zone: s.zone,
        latitude: s.latitude,
        longitude: s.longitude,
        ...KNOWN[key],
        ...(key === 'vrba' && photo ? { photos: [{ sha256: photo, text: 'The turning from the service road' }] } : {}),
      }),
    );
    for (const st of s.stalls)
      out.push(
        recordItem('stall', st.id, {
          siteId: s.id,
          name: st.name,
          outlets: [(s.network === 'hollinPublic' ? ac(st.kW, st.kW >= 43 ? 'tethered' : 'own cable') : dc('CCS2', st.kW)) as never],
          ...STALLS[key]?.[st.name],
        }),
      );
    for (const [name, more] of MORE[key] ?? []) out.push(recordItem('stall', made(), { siteId: s.id, name, ...more } as never));
  }
  return out;
}
