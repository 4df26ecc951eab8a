import type { APIRequestContext, Page } from '@playwright/test';
import { v7 } from 'uuid';
import { type RecordItem, recordItem } from '@/core/records/record-schema';
import { simulateVisit, type VisitPlan } from '@/core/simulator/simulate-visit';
import type { StoredEvent } from '@/core/visit/event';

export type Member = { householdId: string; personId: string; email: string; password: string };

/** What the application's own pages send with a write. */
export const own = (baseURL: string) => ({ origin: baseURL, 'content-type': 'application/json' });

/** The same as the front would hand it on from a phone at an address. */
export const from = (baseURL: string, address: string = v7()) => ({
  ...own(baseURL),
  'x-mile-front': process.env.MILE_FRONT_SECRET as string,
  'x-forwarded-for': address,
  'x-forwarded-proto': 'http',
});

/** Makes a household of its own for one test and signs this browser in. */
export async function newHousehold(page: Page, baseURL: string): Promise<Member> {
  const email = `driver-${v7()}@example.invalid`;
  const password = 'a long enough one';
  const made = await page.request.post('/api/v1/household', {
    headers: from(baseURL),
    data: { name: 'Tone Zupan', householdName: 'Test household', email, password, currency: 'EUR', zone: 'Europe/Ljubljana' },
  });
  if (made.status() !== 201) throw new Error(`no household: ${made.status()} ${await made.text()}`);
  const me = await (await page.request.get('/api/v1/me')).json();
  return { householdId: me.householdId, personId: me.personId, email, password };
}

export type ItemAnswer = { id: string; status: string; path?: string; reason?: string; code?: string };
export async function send(request: APIRequestContext, baseURL: string, items: object[]): Promise<ItemAnswer[]> {
  const answer = await request.post('/api/v1/outbox', { headers: own(baseURL), data: { items } });
  if (!answer.ok()) throw new Error(`outbox: ${answer.status()} ${await answer.text()}`);
  return (await answer.json()).results;
}

export type Place = { networkId: string; siteId: string; stalls: string[]; carId: string };
/** A network with one site of two stalls and a price, and a car. */
export async function addPlace(page: Page, baseURL: string, names: { network: string; site: string }): Promise<Place> {
  const place: Place = { networkId: v7(), siteId: v7(), stalls: [v7(), v7()], carId: v7() };
  const records: RecordItem[] = [
    recordItem('network', place.networkId, { name: names.network }),
    recordItem('site', place.siteId, { networkId: place.networkId, name: names.site, zone: 'Europe/Ljubljana' }),
    ...place.stalls.map((id, i) => recordItem('stall', id, { siteId: place.siteId, name: String(i + 1), outlets: [{ connector: 'CCS2', ratedKW: 150 }] })),
    recordItem('car', place.carId, { name: 'Heron 62', usableKWh: 62, connectors: ['CCS2'] }),
    recordItem('tariff', v7(), { networkId: place.networkId, currency: 'EUR', perKWh: '0.50', startFee: '0', validFrom: '2020-01-01' }),
  ];
  await send(
    page.request,
    baseURL,
    records.map((record) => ({ type: 'record', record })),
  );
  return place;
}

/** Events of a simulated visit for a household, first attempt failed when `fails`. */
export function visitEvents(who: Member, place: Place, at: number, fails = false): StoredEvent[] {
  let n = 0;
  const random = () => {
    n = (n * 16807 + 7) % 2147483647;
    return (n % 1000) / 1000;
  };
  const means = { kind: 'contactless' as const };
  const plan: VisitPlan = {
    visitId: v7({ msecs: at }),
    householdId: who.householdId,
    personId: who.personId,
    deviceId: v7(),
    life: v7(),
    at,
    zone: 'Europe/Ljubljana',
    siteId: place.siteId,
    carId: place.carId,
    car: {
      usableKWh: 62,
      curve: [
        [0, 100],
        [100, 60],
      ],
    },
    attempts: [
      ...(fails ? [{ stallId: place.stalls[0] as string, means, result: { is: 'fault' as const, code: 'start_error', after_s: 40 } }] : []),
      { stallId: place.stalls[1] as string, means, result: { is: 'power', handshake_s: 24, fromPct: 30, toPct: 70, limits: { stallKW: 150 } } },
    ],
    idle_s: 60,
    leave: 'enough',
    bill: (kWh) => ({ amount: (Number(kWh) * 0.5).toFixed(2), currency: 'EUR', kWh }),
  };
  return simulateVisit(plan, { random, newId: (msecs) => v7({ msecs }) });
}
export const asItems = (events: readonly StoredEvent[]) => events.map((event) => ({ type: 'event', event }));
