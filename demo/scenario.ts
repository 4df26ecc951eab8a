import type { Connector } from '@/core/records/connector';
import type { MeansKind } from '@/core/records/means-kind';
import { type RecordItem, recordItem } from '@/core/records/record-schema';
import type { CarModel } from '@/core/simulator/car-model';
import { demoId } from './ids';

/**
 * The invented world of the demo: Ines Kolar tunes church organs and bells across Slovenia and into Carinthia.
 * No network, site, car or person in it exists.
 */
const FOUNDED = Date.parse('2024-04-01T06:00:00Z');
const made = () => demoId(FOUNDED);

export const ines = {
  householdId: made(),
  personId: made(),
  deviceId: made(),
  name: 'Ines Kolar',
  householdName: 'Kolar organ and bell tuning',
  currency: 'EUR',
  zone: 'Europe/Ljubljana',
};

export const heron: CarModel = {
  usableKWh: 62,
  curve: [
    [0, 92],
    [8, 121],
    [30, 121],
    [45, 104],
    [60, 82],
    [75, 62],
    [85, 44],
    [95, 24],
    [100, 8],
  ],
};
export const badger: CarModel = {
  usableKWh: 88,
  curve: [
    [0, 130],
    [10, 178],
    [40, 172],
    [55, 140],
    [70, 105],
    [80, 88],
    [90, 46],
    [100, 10],
  ],
};

type SiteDef = {
  id: string;
  name: string;
  network: NetworkKey;
  latitude: number;
  longitude: number;
  zone: string;
  stalls: { id: string; name: string; kW: number }[];
};
type NetworkKey = 'copperbeech' | 'saltmarsh' | 'bluebarn' | 'ferrywell' | 'otterbrook' | 'hollinPublic';

/** How a network behaves, for the visits that are not told one by one; and what it asks, where its posts say no more than kWh and a start. */
export type NetworkCharacter = { id: string; name: string; startsFirst: number; handshake_s: number; perKWh: [string, string] | null; startFee: string };
export const networks: Record<NetworkKey, NetworkCharacter> = {
  copperbeech: { id: made(), name: 'Copperbeech', startsFirst: 0.97, handshake_s: 11, perKWh: ['0.49', '0.49'], startFee: '0' },
  saltmarsh: { id: made(), name: 'Saltmarsh Rapid', startsFirst: 0.86, handshake_s: 31, perKWh: ['0.52', '0.55'], startFee: '0.46' },
  bluebarn: { id: made(), name: 'Bluebarn', startsFirst: 0.7, handshake_s: 46, perKWh: ['0.54', '0.57'], startFee: '0' },
  ferrywell: { id: made(), name: 'Ferrywell', startsFirst: 0.55, handshake_s: 62, perKWh: ['0.45', '0.48'], startFee: '1.00' },
  otterbrook: { id: made(), name: 'Otterbrook', startsFirst: 0.9, handshake_s: 22, perKWh: null, startFee: '0' },
  hollinPublic: { id: made(), name: 'Hollin Public', startsFirst: 0.94, handshake_s: 7, perKWh: null, startFee: '0' },
};

const site = (name: string, network: NetworkKey, latitude: number, longitude: number, stalls: [string, number][], zone = 'Europe/Ljubljana'): SiteDef => ({
  id: made(),
  name,
  network,
  latitude,
  longitude,
  zone,
  stalls: stalls.map(([n, kW]) => ({ id: made(), name: n, kW })),
});
export const sites = {
  hollin: site('Hollin Bridge', 'copperbeech', 46.212, 14.711, [
    ['1', 150],
    ['2', 150],
    ['3', 150],
    ['4', 150],
  ]),
  kamen: site('Kamen Toll', 'copperbeech', 46.041, 15.118, [
    ['1', 200],
    ['2', 200],
  ]),
  vrba: site('Vrba Crossing', 'saltmarsh', 46.377, 14.092, [
    ['1', 150],
    ['2', 150],
    ['3', 150],
    ['4', 150],
  ]),
  drava: site(
    'Drava Meadow',
    'saltmarsh',
    46.601,
    14.037,
    [
      ['A', 150],
      ['B', 150],
    ],
    'Europe/Vienna',
  ),
  zdravec: site('Mill of Zdravec', 'bluebarn', 46.489, 15.241, [
    ['1', 50],
    ['2', 100],
  ]),
  lipa: site('Lipa Barn', 'bluebarn', 45.902, 14.553, [
    ['North', 100],
    ['South', 100],
  ]),
  logarnik: site('Logarnik East', 'ferrywell', 46.288, 14.972, [
    ['1', 60],
    ['2', 60],
    ['3', 120],
  ]),
  brod: site('Brod Landing', 'ferrywell', 45.871, 15.443, [['1', 120]]),
  quay: site('Otterbrook Quay', 'otterbrook', 46.101, 14.861, [
    ['1', 100],
    ['2', 100],
  ]),
  osier: site('Sava Osier', 'otterbrook', 45.983, 15.287, [
    ['1', 160],
    ['2', 160],
  ]),
  forge: site('Alder Forge', 'hollinPublic', 46.318, 14.402, [
    ['1', 43],
    ['2', 22],
  ]),
  belfry: site('Under the Belfry', 'hollinPublic', 46.153, 14.297, [
    ['Left', 22],
    ['Right', 22],
  ]),
  gail: site(
    'Gail Orchard',
    'saltmarsh',
    46.612,
    13.702,
    [
      ['1', 75],
      ['2', 75],
    ],
    'Europe/Vienna',
  ),
  kiln: site('Jelka Kiln', 'bluebarn', 46.424, 14.842, [
    ['1', 300],
    ['2', 300],
    ['3', 300],
    ['4', 300],
  ]),
  slope: site('Beech Slope', 'copperbeech', 45.934, 14.902, [
    ['1', 150],
    ['2', 150],
  ]),
  ridge: site('Hazel Ridge', 'copperbeech', 46.552, 15.012, [
    ['1', 200],
    ['2', 200],
  ]),
  lavant: site(
    'Lavant Weir',
    'copperbeech',
    46.703,
    14.842,
    [
      ['1', 150],
      ['2', 150],
    ],
    'Europe/Vienna',
  ),
  dike: site('Salt Dike', 'saltmarsh', 45.812, 14.921, [
    ['1', 150],
    ['2', 150],
  ]),
  reeds: site('Reed Hollow', 'saltmarsh', 46.244, 15.331, [
    ['1', 100],
    ['2', 100],
  ]),
  granary: site('Old Granary', 'bluebarn', 46.131, 15.002, [
    ['East', 100],
    ['West', 100],
  ]),
  barns: site('Three Barns', 'bluebarn', 46.302, 14.241, [
    ['1', 150],
    ['2', 150],
  ]),
  ropeway: site('Ropeway Halt', 'ferrywell', 46.398, 14.622, [
    ['1', 60],
    ['2', 120],
  ]),
  pontoon: site('Krka Pontoon', 'ferrywell', 45.792, 15.192, [['1', 120]]),
  locks: site('Nine Locks', 'ferrywell', 46.512, 14.851, [
    ['1', 60],
    ['2', 60],
  ]),
  millrace: site('Mill Race', 'otterbrook', 46.231, 14.503, [
    ['1', 100],
    ['2', 100],
  ]),
  gurk: site(
    'Gurk Ford',
    'otterbrook',
    46.802,
    14.301,
    [
      ['1', 160],
      ['2', 160],
    ],
    'Europe/Vienna',
  ),
  holt: site('Otter Holt', 'otterbrook', 45.851, 14.302, [['1', 100]]),
  market: site('Hollin Market', 'hollinPublic', 46.218, 14.734, [
    ['1', 22],
    ['2', 22],
  ]),
  baths: site('The Old Baths', 'hollinPublic', 46.072, 14.612, [['1', 22]]),
  library: site('Library Yard', 'hollinPublic', 46.402, 15.102, [
    ['1', 22],
    ['2', 22],
  ]),
} as const;
export type SiteKey = keyof typeof sites;

export const cars = {
  heron: { id: made(), name: 'Heron 62', usableKWh: 62, connector: 'CCS2' as Connector },
  badger: { id: made(), name: 'Badger 88', usableKWh: 88, connector: 'CCS2' as Connector },
};

export const means: Record<'card' | 'app' | 'rfid' | 'auto', { id: string; kind: MeansKind; label: string }> = {
  card: { id: made(), kind: 'contactless', label: 'Bank card' },
  app: { id: made(), kind: 'app', label: 'Bluebarn app' },
  rfid: { id: made(), kind: 'rfid', label: 'Workshop tag' },
  auto: { id: made(), kind: 'autocharge', label: 'Heron, Autocharge' },
};

/** The day from which the second price holds. */
export const PRICE_CHANGE = '2025-03-01';

/** The membership that paid in one month and not in the next. */
export const MEMBER = { name: 'Copperbeech member', network: 'copperbeech', perKWh: '0.39', from: '2025-06-01', until: '2025-07-31' } as const;

/** What the networks charge, dated. */
export const tariffRecords = (): RecordItem[] =>
  Object.values(networks).flatMap((n) =>
    (n.perKWh ?? []).map((perKWh, i) =>
      recordItem('tariff', made(), { networkId: n.id, currency: 'EUR', perKWh, startFee: n.startFee, validFrom: i === 0 ? '2024-01-01' : PRICE_CHANGE }),
    ),
  );
