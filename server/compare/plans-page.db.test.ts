import { v7 } from 'uuid';
import { recordItem } from '@/core/records/record-schema';
import { localDay } from '@/core/units/zoned';
import { now } from '../clock';
import { pool } from '../db/pool';
import { addPlace, addVisit, asRecords, describeWithDatabase, newHousehold, send, signedIn } from '../fixtures/household';
import { plansPage } from './plans-page';

afterAll(() => (process.env.DATABASE_URL ? pool().end() : undefined));

describeWithDatabase('what plans would have saved', () => {
  it('is told in the currency of the fee and the prices; of two it is not', async () => {
    const who = await newHousehold();
    const place = await addPlace(who);
    const { networkId } = place;
    const [euros, forint] = [v7(), v7()];
    const tariff = (perKWh: string, more: object) =>
      recordItem('tariff', v7(), { networkId, currency: 'EUR', perKWh, startFee: '0', validFrom: '2020-01-01', ...more });
    const answers = await send(
      who,
      asRecords([
        recordItem('plan', euros, { name: 'Euros', networkId, monthlyFee: '1.00', currency: 'EUR', from: '2020-01-01' }),
        recordItem('plan', forint, { name: 'Forint', networkId, monthlyFee: '3990', currency: 'HUF', from: '2020-01-01' }),
        tariff('0.60', {}),
        tariff('0.40', { planId: euros }),
        tariff('0.30', { planId: forint }),
      ]),
    );
    expect(answers.map((a) => a.status)).toEqual(Array(5).fill('taken'));
    const charged = now() - 3_600_000;
    await addVisit(who, place, charged);
    const { plans, beyond } = await plansPage(signedIn(who));
    const [first, second] = plans;
    expect(beyond).toBe(0);
    // 12.5 kWh: 7.50 as a guest, 5.00 and the fee with the plan.
    expect(first).toMatchObject({ name: 'Euros', from: '5', otherCurrency: null });
    // In the first hour of a month it was the last one's.
    const month = localDay(charged, 'UTC').slice(0, 7);
    expect(first?.months.find((m) => m.month === month)).toMatchObject({ visits: 1, guest: 7.5, plan: 6, saved: 1.5 });
    expect(second).toMatchObject({ name: 'Forint', from: null, otherCurrency: 'EUR' });
    expect(second?.months.every((m) => m.visits === 0)).toBe(true);
    // Charges elsewhere are none of a plan's; of too many the newest are priced, and it is said of how many others they are not.
    await addVisit(who, await addPlace(who, { network: 'Saltmarsh Rapid', site: 'Vrba Crossing' }), charged + 60_000);
    await addVisit(who, place, charged - 60_000);
    const visitsOf = ({ plans, beyond }: Awaited<ReturnType<typeof plansPage>>) => [plans[0]?.months.reduce((n, m) => n + m.visits, 0), beyond];
    expect(visitsOf(await plansPage(signedIn(who)))).toEqual([2, 0]);
    // A month of which only some are looked at would say too little: it is left out.
    const before = first?.months.at(-3)?.month;
    await addVisit(who, place, Date.parse(`${before}-10T12:00:00Z`));
    await addVisit(who, place, Date.parse(`${before}-11T12:00:00Z`));
    const some = await plansPage(signedIn(who), 3);
    expect(visitsOf(some)).toEqual([2, 1]);
    expect(some.plans[0]?.months).toHaveLength(2);
  });
});
