import { expect, type Page, test } from '@playwright/test';
import { v7 } from 'uuid';
import { enrolmentSteps } from '@/core/records/enrolment-steps';
import { type RecordItem, recordItem } from '@/core/records/record-schema';
import { addPlace, newHousehold, type Place, send } from '../hands/household';
import { allSent, keptEvents, openStall, thumb } from '../hands/stall';

/** How far a touch as it was made may be from the time that is recorded, on a busy machine. */
const TOUCH_MS = 1500;
/** A driver with a clock of their own: the time of each touch, by what was touched. */
function watched(page: Page) {
  const hand = thumb(page);
  const at = new Map<string, number>();
  const timed = async (what: string, touch: Promise<void>) => {
    await touch;
    at.set(what, Date.now());
  };
  return {
    hand,
    at,
    pad: (name: string) => timed(name, hand.pad(new RegExp(`^${name}`))),
    /** One of More’s acts. */
    more: async (name: string) => {
      await hand.pad(/^More/);
      await timed(name, hand.sheet(name));
    },
    /** `other`: it stands behind one more touch. */
    fault: async (name: string, then: string | null, other = false) => {
      await hand.pad(/^Fault/);
      if (other) await hand.sheet('Every other fault');
      await timed(name, hand.sheet(name));
      if (then) await hand.sheet(then);
    },
    /** Every event of these kinds stands where the driver's own clock had it. */
    compare: async (kinds: readonly (readonly [kind: string, what: string, nth?: number])[]) => {
      const events = (await keptEvents(page)).map((k) => k.event);
      for (const [kind, what, nth = 0] of kinds) {
        const event = events.filter((e) => e.kind === kind)[nth];
        expect(Math.abs((event?.at ?? 0) - (at.get(what) ?? Number.NaN)), `${kind} ${nth}`).toBeLessThan(TOUCH_MS);
      }
    },
  };
}
const fact = (page: Page, name: string) => page.locator('dl > div').filter({ has: page.locator('dt', { hasText: new RegExp(`^${name}$`) }) });
async function pullIn(page: Page, site: string, stall = 1) {
  await page.getByRole('button', { name: new RegExp(`^${site}`) }).tap();
  await page.getByRole('radio', { name: new RegExp(`^Stall ${stall}`) }).tap();
  await page.getByRole('button', { name: /^Pulled in/, disabled: false }).tap();
  await page.getByRole('button', { name: new RegExp(`^Stall ${stall} chosen`) }).waitFor();
}
/** Sends records, whole. */
const add = (page: Page, baseURL: string, records: RecordItem[]) =>
  send(
    page.request,
    baseURL,
    records.map((record) => ({ type: 'record', record })),
  );
let place: Place;
test.beforeEach(async ({ page, baseURL }) => {
  await newHousehold(page, baseURL as string);
  place = await addPlace(page, baseURL as string, { network: 'Ferrywell', site: 'Logarnik East' });
});

test('card first, a claim, no power: seven touches, and the time lost is the driver’s own', async ({ page }) => {
  await openStall(page);
  await pullIn(page, 'Logarnik East');
  const w = watched(page);
  await w.pad('Card shown');
  await w.pad('Plugged in');
  await w.pad('Says charging');
  await w.fault('Says charging, no power', 'Leave');
  await w.hand.sheet('Gave up');
  const left = Date.now();
  expect(w.hand.taps).toBe(7);
  await allSent(page, 7);
  await w.compare([
    ['means_shown', 'Card shown'],
    ['plugged', 'Plugged in'],
    ['claimed', 'Says charging'],
    ['fault', 'Says charging, no power'],
  ]);
  await page.getByRole('link', { name: 'Open its page' }).tap();
  await expect(fact(page, 'Attempts')).toContainText('1 failed');
  const lost = Number.parseFloat((await fact(page, 'Lost to faults').locator('.num').first().textContent()) as string);
  expect(Math.abs(lost - (left - (w.at.get('Card shown') as number)) / 1000)).toBeLessThan(2);
  await expect(fact(page, 'Handshake')).toContainText('no power was seen');
});

test('three attempts at two stalls with an adapter: it is fitted before each plugging in, and the third charges', async ({ page, baseURL }) => {
  const base = baseURL as string;
  const adapter = v7();
  await add(page, base, [
    recordItem('car', place.carId, { name: 'Heron 62', usableKWh: 62, connectors: ['CHAdeMO'] }, 1),
    recordItem('adapter', adapter, { name: 'The grey one', from: 'CCS2', to: 'CHAdeMO', maxA: 125, maxV: 500, approved: true }),
  ]);
  await openStall(page);
  await pullIn(page, 'Logarnik East');
  const w = watched(page);
  await w.pad('Adapter fitted');
  await w.pad('Plugged in');
  await w.pad('Card shown');
  await w.fault('Adapter not recognised', 'Same stall again');
  await w.pad('Card shown');
  await w.fault('Start error', 'Another stall');
  await w.hand.sheet(/^Stall 2/);
  await w.pad('Adapter fitted');
  await w.pad('Plugged in');
  await w.pad('Card shown');
  await w.pad('I see power');
  const handshake = ((w.at.get('I see power') as number) - (w.at.get('Card shown') as number)) / 1000;
  await w.pad('I pressed stop');
  await w.pad('Unplugged');
  await w.pad('Pulled out');
  expect(w.hand.taps).toBe(18);
  await allSent(page, 16);
  await page.getByRole('link', { name: 'Open its page' }).tap();
  await expect(fact(page, 'Attempts')).toContainText('3');
  await expect(fact(page, 'Attempts')).toContainText('2 failed');
  const shown = Number.parseFloat((await fact(page, 'Handshake').locator('.num').first().textContent()) as string);
  expect(Math.abs(shown - handshake)).toBeLessThan(2);
  await expect(page.getByRole('heading', { name: /1\. Stall 1: failed \(adapter not recognised\)/ })).toBeVisible();
});

test('enrolment that works and charging that does not, on to a second site: the steps are ticked, both visits are one stop', async ({ page, baseURL }) => {
  const base = baseURL as string;
  await addPlace(page, base, { network: 'Copperbeech', site: 'Hollin Bridge' });
  const steps = enrolmentSteps('autocharge');
  await add(page, base, [recordItem('enrolment', v7(), { kind: 'autocharge', carId: place.carId, networkId: place.networkId, steps })]);
  await openStall(page);
  await pullIn(page, 'Logarnik East');
  const w = watched(page);
  await w.more('Enrolment steps …');
  const sheet = page.getByRole('dialog');
  const left = sheet.getByRole('button', { name: 'Done today' });
  await expect(left).toHaveCount(steps.length);
  for (let n = steps.length; n > 0; n--) {
    await w.hand.at(left.first());
    await expect(left).toHaveCount(n - 1);
  }
  await page.keyboard.press('Escape');
  await w.pad('Plugged in');
  await w.fault('Autocharge or Plug & Charge not recognised', 'Leave', true);
  await w.hand.sheet('On to the next site');
  await w.hand.sheet('Gave up');
  await allSent(page, 5);
  await page.getByRole('button', { name: 'Leave the visit' }).tap();
  await pullIn(page, 'Hollin Bridge');
  await w.pad('Plugged in');
  await w.pad('Card shown');
  await w.pad('I see power');
  await w.pad('I pressed stop');
  await w.pad('Unplugged');
  await w.pad('Pulled out');
  await allSent(page, 13);
  await w.compare([['power_seen', 'I see power']]);
  await page.getByRole('link', { name: 'Open its page' }).tap();
  await expect(page.getByRole('region', { name: 'One stop of 2 visits' })).toContainText('Logarnik East without a charge, then Hollin Bridge');
  expect(w.hand.taps).toBe(2 + steps.length + 1 + 4 + 2 + 6);
});

test('a queue, a neighbour, the climate, a stop at 80 %, a second plug-in: each stands where it was, and what sharing cost is told', async ({ page }) => {
  await openStall(page);
  await page.getByRole('button', { name: /^Logarnik East/ }).tap();
  await page.getByRole('button', { name: /^Pulled in/, disabled: false }).tap();
  const w = watched(page);
  await w.more('Queue joined');
  await w.more('Stall free');
  await w.pad('Choose the stall');
  await w.hand.sheet(/^Stall 1/);
  await w.pad('Plugged in');
  await w.pad('Card shown');
  await w.pad('I see power');
  await w.hand.reading(['40', '120', '1.0']);
  await w.hand.pad(/^Something changed/);
  await w.hand.sheet('Neighbour plugs in');
  await w.hand.reading(['60', '70', '9.0']);
  await w.hand.pad(/^Something changed/);
  await w.hand.sheet('Climate on');
  await w.hand.reading(['80', '50', '20.0']);
  await w.pad('I pressed stop');
  await w.pad('Unplugged');
  await w.more('Plugged in');
  await w.pad('Card shown');
  await w.pad('I see power');
  await w.pad('I pressed stop');
  await w.pad('Unplugged');
  await w.pad('Pulled out');
  await allSent(page, 20);
  await w.compare([
    ['queue_joined', 'Queue joined'],
    ['stall_free', 'Stall free'],
    ['plugged', 'Plugged in', 1],
    ['power_seen', 'I see power', 1],
  ]);
  await page.getByRole('link', { name: 'Open its page' }).tap();
  await expect(fact(page, 'Attempts')).toContainText('2');
  const held = page.getByRole('list', { name: 'What held the power back' });
  await expect(held.getByRole('listitem')).toHaveText([
    /A neighbour charged.*120 kW before, 60 kW meanwhile: 60 kW less/,
    /Climate was on.*70 kW before, 50 kW meanwhile: 20 kW less/,
  ]);
});

test('an AC post by app with the wrong stall started: the right one next, by app again, and a bill', async ({ page, baseURL }) => {
  const outlets = [{ connector: 'Type 2' as const, ratedKW: 22, current: 'AC' as const }];
  await add(
    page,
    baseURL as string,
    place.stalls.map((id, i) => recordItem('stall', id, { siteId: place.siteId, name: String(i + 1), outlets }, 1)),
  );
  await openStall(page);
  await pullIn(page, 'Logarnik East');
  const w = watched(page);
  await w.pad('Plugged in');
  await w.hand.pad(/^More/);
  await w.hand.sheet('Other means …');
  await w.hand.sheet('Started in app');
  await w.fault('Wrong stall started', 'Same stall again');
  await w.pad('Started in app');
  await w.pad('I see power');
  await w.pad('I pressed stop');
  await w.pad('Power gone');
  await w.pad('Unplugged');
  await w.pad('Pulled out');
  await w.pad('Bill');
  await w.hand.figures(['4.20', '8.4']);
  await w.hand.sheet('Save the bill');
  expect(w.hand.taps).toBe(15);
  await allSent(page, 13);
  await page.getByRole('link', { name: 'Open its page' }).tap();
  await expect(page.getByRole('heading', { name: /1\. Stall 1: failed \(wrong stall started\)/ })).toBeVisible();
  await expect(fact(page, 'Paid')).toContainText('€4.20');
  await expect(fact(page, 'Paid')).toContainText('€0.500 per kWh with fees');
});
