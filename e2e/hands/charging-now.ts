import type { Page } from '@playwright/test';
import { v7 } from 'uuid';
import { type RecordItem, recordItem } from '@/core/records/record-schema';
import type { StoredEvent } from '@/core/visit/event';
import type { Kind } from '@/core/visit/payloads';
import { asItems, type Member, send } from './household';

/** A car with a curve of its own, a place of a shared pair, and another down the road. */
export type Road = { carId: string; here: { siteId: string; networkId: string; stalls: string[] }; there: { siteId: string; stallId: string } };

export async function addRoad(page: Page, baseURL: string): Promise<Road> {
  const road: Road = { carId: v7(), here: { siteId: v7(), networkId: v7(), stalls: [v7(), v7()] }, there: { siteId: v7(), stallId: v7() } };
  const zone = 'Europe/Ljubljana';
  const other = v7();
  const records: RecordItem[] = [
    recordItem('network', road.here.networkId, { name: 'Saltmarsh Rapid' }),
    recordItem('network', other, { name: 'Copperbeech' }),
    recordItem('site', road.here.siteId, { networkId: road.here.networkId, name: 'Vrba Crossing', zone, latitude: 46.2, longitude: 14.3, maxStay_min: 90 }),
    recordItem('site', road.there.siteId, { networkId: other, name: 'Hollin Bridge', zone, latitude: 46.5, longitude: 14.9 }),
    ...road.here.stalls.map((id, i) =>
      recordItem('stall', id, {
        siteId: road.here.siteId,
        name: String(i + 1),
        outlets: [{ connector: 'CCS2', ratedKW: 150 }],
        cabinet: 'A',
        sharing: 'shared',
        cabinetKW: 150,
      }),
    ),
    recordItem('stall', road.there.stallId, { siteId: road.there.siteId, name: '1', outlets: [{ connector: 'CCS2', ratedKW: 300 }] }),
    recordItem('car', road.carId, {
      name: 'Heron 62',
      usableKWh: 62,
      connectors: ['CCS2'],
      kWhPer100km: 18,
      curve: [
        [0, 120],
        [40, 120],
        [80, 60],
        [100, 20],
      ],
    }),
    recordItem('tariff', v7(), { networkId: road.here.networkId, currency: 'EUR', perKWh: '0.50', startFee: '0', validFrom: '2020-01-01' }),
  ];
  await send(
    page.request,
    baseURL,
    records.map((record) => ({ type: 'record', record })),
  );
  return road;
}

/** Something of a charge: seconds after the arrival, its kind and payload. */
export type Told = [at_s: number, kind: Kind, payload?: Record<string, unknown>];

/** A visit as a phone of the household would have sent it. @param at UTC ms of the arrival */
export async function tell(page: Page, baseURL: string, who: Member, at: number, told: readonly Told[]): Promise<string> {
  const [visitId, deviceId, life] = [v7({ msecs: at }), v7(), v7()];
  const events = told.map(
    ([s, kind, payload = {}], i): StoredEvent => ({
      id: v7({ msecs: at + s * 1000 }),
      householdId: who.householdId,
      personId: who.personId,
      visitId,
      kind,
      v: 1,
      at: at + s * 1000,
      precision: 'ms',
      zone: 'Europe/Ljubljana',
      deviceId,
      life,
      mono: 1000 + s * 1000,
      awake: true,
      seq: i + 1,
      origin: 'tap',
      role: 'recorder',
      payload,
    }),
  );
  const results = await send(page.request, baseURL, asItems(events));
  const refused = results.find((r) => r.status === 'refused');
  if (refused) throw new Error(JSON.stringify(refused));
  return visitId;
}

/** Pulled in, stall chosen, plugged, card, power at 60 s. */
export const untilPower = (road: Road): Told[] => [
  [0, 'pulled_in', { siteId: road.here.siteId, carId: road.carId }],
  [10, 'stall_chosen', { stallId: road.here.stalls[0] }],
  [20, 'plugged'],
  [30, 'means_shown', { meansKind: 'contactless' }],
  [60, 'power_seen', { screen: 'stall', mark: 'kW' }],
];
/** The stall's screen at a second. */
export const look = (at_s: number, socPct: number, kW: number, kWh: string): Told => [at_s, 'reading', { screen: 'stall', socPct, kW, kWh }];
