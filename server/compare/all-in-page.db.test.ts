import { v7 } from 'uuid';
import { recordItem } from '@/core/records/record-schema';
import type { Step } from '@/core/visit/fixtures/story';
import { now } from '../clock';
import { pool } from '../db/pool';
import { addPlace, addVisit, asRecords, CHARGED, describeWithDatabase, newHousehold, send, signedIn } from '../fixtures/household';
import { allInPage } from './all-in-page';

afterAll(() => (process.env.DATABASE_URL ? pool().end() : undefined));

describeWithDatabase('what charging a car came to', () => {
  it('is told of its own charges of the last twelve months; of too many of the newest, and how many they are not', async () => {
    const who = signedIn(await newHousehold());
    const place = await addPlace(who);
    const carId = v7();
    const [made] = await send(who, asRecords([recordItem('car', carId, { name: 'Ember', usableKWh: 60, connectors: ['CCS2'] })]));
    expect(made?.status).toBe('taken');
    const bill: Step = [995, 'bill', { sessions: [], amount: '5.00', currency: 'EUR', kWh: '12.5', state: 'charged' }];
    const hours = [1, 5, 9];
    for (const h of hours) await addVisit(who, place, now() - h * 3_600_000, h === 9 ? CHARGED : [...CHARGED, bill], { carId });
    await addVisit(who, place, now() - 12 * 3_600_000, [...CHARGED, bill]);
    await addVisit(who, place, now() - 400 * 86_400_000, [...CHARGED, bill], { carId });
    expect(await allInPage(who, carId)).toMatchObject({ car: { name: 'Ember' }, all: { visits: 2, paid: 10, kWh: 25 }, unbilled: 1, elsewhere: 0, beyond: 0 });
    expect(await allInPage(who, null, 1)).toMatchObject({ all: { visits: 1 }, unbilled: 0, beyond: 2 });
    expect(await allInPage(signedIn(await newHousehold()), carId)).toMatchObject({ car: null, all: null, beyond: 0 });
  });
});
