import { expect, test } from '@playwright/test';
import sharp from 'sharp';
import { v7 } from 'uuid';
import { recordItem } from '@/core/records/record-schema';
import { KINDS } from '@/core/visit/kinds/registry';
import type { Kind } from '@/core/visit/payloads';
import { pulledIn } from '../hands/at-the-site';
import { send } from '../hands/household';
import { allSent, keptEvents, openStall, thumb } from '../hands/stall';

/** A picture that says where it was taken. */
const picture = () =>
  sharp({ create: { width: 8, height: 8, channels: 3, background: '#f6bc0a' } })
    .withExif({ IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '46/1 22/1 3720/100', GPSLongitudeRef: 'E', GPSLongitude: '14/1 5/1 3120/100' } })
    .jpeg()
    .toBuffer();

test('every kind of event can be recorded, whatever went before', async ({ page, baseURL }) => {
  test.setTimeout(480_000);
  const { place } = await pulledIn(page, baseURL as string);
  await send(page.request, baseURL as string, [
    { type: 'record', record: recordItem('adapter', v7(), { name: 'CHAdeMO box', from: 'CHAdeMO', to: 'CCS2', maxA: 125, maxV: 500 }) },
    {
      type: 'record',
      record: recordItem('stall', v7(), {
        siteId: place.siteId,
        name: '3',
        outlets: [
          { connector: 'CCS2', ratedKW: 50 },
          { connector: 'CHAdeMO', ratedKW: 50 },
        ],
      }),
    },
  ]);
  await page.reload();
  await expect(page.getByRole('button', { name: /^Stall 1 chosen/ })).toBeVisible();
  const hand = thumb(page);
  const dialog = page.getByRole('dialog');
  const more = async (label: string) => {
    await hand.pad(/^More/);
    await hand.sheet(label);
  };
  const closed = () => expect(dialog).toHaveCount(0);

  for (const label of ['Queue joined', 'Stall free', 'Reserved', 'Reservation released']) await more(label);
  await more('Look at the bays …');
  for (const state of ['Charging', 'Dark', 'Free']) await hand.sheet(state);
  await expect(dialog.getByText('1 free, 1 taken, 1 out of order.')).toBeVisible();
  await hand.sheet('Record the bays');
  await closed();
  await more('Figures on arrival …');
  await hand.figures(['2', '1']);
  await hand.sheet('Keep the figures');
  await expect(dialog.getByRole('alert')).toContainText('There are 1 in all');
  await hand.figures([null, '4', '1', '18']);
  await hand.sheet('Keep the figures');
  await closed();

  await more('Another stall …');
  await hand.sheet(/^Stall 3/);
  await hand.sheet(/^CHAdeMO, 50/);
  await more('Handle taken');
  await more('Named in the app …');
  await dialog.getByLabel('Number or name you typed or pressed').fill('BB-03');
  await hand.sheet('Record it');
  // The adapter that the car needs here is proposed, and can be named.
  await more('Adapter fitted …');
  await expect(dialog).toContainText('never two in a row');
  await hand.sheet(/^CHAdeMO box/);
  await closed();
  await hand.pad(/^Plugged in/);
  await more('Price shown …');
  await dialog.getByLabel('€ per kWh').fill('0,59');
  await hand.sheet('App');
  await hand.sheet('Record it');
  await closed();
  await hand.pad(/^Card shown/);
  await hand.at(page.getByRole('button', { name: 'Refused' }));
  await more('Other means …');
  await hand.sheet('Started in app');
  await hand.at(page.getByRole('button', { name: 'Accepted' }));
  await more('By a beep');
  await more('Helpline …');
  await hand.sheet('Called');
  await expect(dialog.getByRole('timer')).toContainText('Ringing');
  await hand.sheet('Answered');
  await hand.sheet('They reset the stall');
  await expect(dialog.getByRole('timer')).toHaveCount(0);
  await page.keyboard.press('Escape');
  await more('Power on the car’s screen');
  await hand.reading(['31', '44', '1.2']);
  await hand.pad(/^Something changed/);
  await dialog.getByLabel('Something else, in words').fill('A lorry blocks the wind');
  await hand.sheet('Record it');
  await hand.pad(/^Fault/);
  await hand.sheet('Hot cable or connector');
  await expect(dialog).toContainText('before you touch it');
  await hand.sheet('Same stall again');
  await more('Stopped from the car');
  await more('Power gone …');
  await hand.sheet('I asked it to');
  await more('Unlocked');
  await more('Handle stuck …');
  await expect(dialog).toContainText('Never pull');
  await hand.sheet('At the post');
  await hand.pad(/^Unplugged/);
  await more('Note …');
  await dialog.getByLabel('Note').fill('4111 1111 1111 1111');
  await expect(dialog.getByRole('button', { name: 'Keep the note' })).toBeDisabled();
  await dialog.getByLabel('Note').fill('Cold, and no roof');
  await hand.sheet('Keep the note');
  await more('Stopwatch figure …');
  await hand.figures([null, '24.5']);
  await hand.sheet('Keep the figure');
  await closed();
  await hand.pad(/^Pulled out/);
  await more('Receipt …');
  await dialog.getByLabel('Write down where it was taken').check();
  await dialog.getByLabel('Take or choose a photo').setInputFiles({ name: 'receipt.jpg', mimeType: 'image/jpeg', buffer: await picture() });
  await expect(dialog.getByRole('status')).toContainText('Its position is written beside it.');
  await hand.sheet('Keep it with the visit');
  await closed();
  await hand.at(page.getByRole('button', { name: 'Rate it' }));
  await hand.sheet('2');
  await hand.sheet('Keep it');
  await closed();
  await hand.pad(/^Bill/);
  await hand.figures(['1.10']);
  await hand.sheet('Save the bill');
  await closed();
  await hand.pad(/^Undo/);
  await allSent(page, 38);

  const kinds = new Set((await keptEvents(page)).map((k) => k.event.kind));
  // Said of a visit afterwards, on its page or by what comes later; the Stall carries them.
  const afterwards: Kind[] = ['danger_cleared', 'hold_released', 'mark', 'trial_round', 'trial_voided'];
  expect(KINDS.filter((k) => !kinds.has(k))).toEqual(afterwards);
  await page.getByRole('link', { name: 'Open its page' }).tap();
  const record = page.getByRole('region', { name: 'The record' });
  for (const text of [
    '2 of 14 free, 1 out of order, 18 %',
    '1 charging, 2 dark, 3 free',
    'Named BB-03',
    'CHAdeMO box',
    '0.59 EUR per kWh, app',
    'by beep',
    'they reset the stall',
    'A lorry blocks the wind',
    'I asked it to',
    'at the post',
    'Cold, and no roof',
    '2 of 5',
    'handshake, 24.5 s ± 2 s',
  ])
    await expect(record).toContainText(text);
  await record.getByRole('button', { name: /^Correct Bays looked at/ }).tap();
  await dialog.getByLabel('Stall 2').selectOption('Closed');
  await dialog.getByRole('button', { name: 'Keep the correction' }).tap();
  await expect(record).toContainText('1 charging, 2 closed, 3 free');
  await expect(record).toContainText('stall 2 set to Closed by Tone Zupan');
  const link = record.getByRole('link', { name: 'Picture, taken at 46.3770, 14.0920' });
  const address = (await link.getAttribute('href')) as string;
  await expect.poll(async () => (await page.request.get(address)).status()).toBe(200);
  expect((await sharp(await (await page.request.get(address)).body()).metadata()).exif).toBeUndefined();
  await expect(page.getByRole('region', { name: 'Given figures' })).toContainText('the derived one counts');
});

test('an adapter that must not go there is refused with the reason; what is proposed comes before the plug', async ({ page, baseURL }) => {
  const { place } = await pulledIn(page, baseURL as string);
  const stall = (id: string, name: string, more: object) => ({
    type: 'record',
    record: recordItem('stall', id, { siteId: place.siteId, name, ...more } as never),
  });
  const [builtIn, plain] = [v7(), v7()];
  await send(page.request, baseURL as string, [
    { type: 'record', record: recordItem('adapter', v7(), { name: 'Combo sleeve', from: 'CHAdeMO', to: 'CCS2', maxA: 125, maxV: 500 }) },
    stall(builtIn, '8', { outlets: [{ connector: 'CHAdeMO', ratedKW: 50 }], builtInAdapter: 'CCS2' }),
    stall(plain, '9', { outlets: [{ connector: 'CHAdeMO', ratedKW: 50 }], orderThatWorks: 'card, then plug' }),
  ]);
  await page.reload();
  const hand = thumb(page);
  await hand.pad(/^More/);
  await hand.sheet('Another stall …');
  await hand.sheet(/^Stall 8/);
  await hand.pad(/^More/);
  await hand.sheet('Adapter fitted …');
  await hand.sheet(/^Combo sleeve/);
  await expect(page.getByRole('dialog').getByRole('alert')).toContainText('The stall has an adapter to CCS2 built in: never two in a row. Take it off.');
  await page.keyboard.press('Escape');
  await hand.pad(/^More/);
  await hand.sheet('Another stall …');
  await hand.sheet(/^Stall 9/);
  // The adapter first, then the order that works here: the card before the plug.
  await hand.pad(/^Adapter fitted/);
  await hand.pad(/^Card shown/);
  await hand.pad(/^Plugged in/);
  await hand.pad(/^I see power/);
  await allSent(page, 8);
  expect((await keptEvents(page)).slice(-5).map((k) => k.event.kind)).toEqual(['stall_chosen', 'adapter_fitted', 'means_shown', 'plugged', 'power_seen']);
});

test('a shutter-button presses the yellow pad, at the time of the press; a field and a sheet keep their keys', async ({ page, baseURL }) => {
  await pulledIn(page, baseURL as string);
  const yellow = page.locator('[data-resting="false"]').getByRole('button').first();
  await expect(yellow).toContainText('Plugged in');
  await page.evaluate('document.activeElement.blur()');
  await page.keyboard.press('AudioVolumeUp');
  await expect(page.getByRole('button', { name: /^Plugged in, .*Correct$/ })).toBeVisible();
  await expect(yellow).toContainText('Card shown');
  await page.keyboard.press('PageDown');
  await expect(page.getByRole('button', { name: /^Card shown, .*Correct$/ })).toBeVisible();
  await thumb(page).pad(/^More/);
  await page.getByRole('dialog').waitFor();
  await page.keyboard.press('AudioVolumeUp');
  await page.keyboard.press('Escape');
  await allSent(page, 4);
  expect((await keptEvents(page)).map((k) => k.event.kind)).toEqual(['pulled_in', 'stall_chosen', 'plugged', 'means_shown']);
});

test('the clock for filming shows the visit’s code, which stands on its page; limits of the stay count down', async ({ page, baseURL }) => {
  const { place } = await pulledIn(page, baseURL as string);
  const changes = await (await page.request.get('/api/v1/changes?since=0')).json();
  const site = changes.records.find((r: { type: string; id: string }) => r.type === 'site' && r.id === place.siteId);
  await send(page.request, baseURL as string, [
    { type: 'record', record: { type: 'site', id: site.id, baseRev: site.rev, fields: { ...site.fields, maxStay_min: 45, idleGrace_min: 5 } } },
  ]);
  await openStall(page);
  const hand = thumb(page);
  await expect(page.getByLabel(/^Limits of the stay/)).toContainText(/Max stay ends in\s*4[45]:\d\d/);
  await hand.pad(/^Plugged in/);
  await hand.pad(/^Card shown/);
  await hand.pad(/^I see power/);
  await hand.pad(/^I pressed stop/);
  await expect(page.getByLabel(/^Limits of the stay/)).toContainText(/Idle fee starts in\s*[45]:\d\d/);
  // Every limit opens from the strip, with the same words.
  await hand.at(page.getByLabel(/^Limits of the stay/));
  await expect(page.getByRole('dialog')).toContainText('Max stay ends in');
  await page.keyboard.press('Escape');
  const visitId = (await keptEvents(page))[0]?.event.visitId as string;
  const code = `${visitId.slice(-8, -4)}-${visitId.slice(-4)}`.toUpperCase();
  await hand.pad(/^More/);
  await hand.sheet('Clock for filming');
  await expect(page.getByRole('dialog')).toContainText(code);
  await expect(page.getByRole('dialog')).toContainText('since pressed stop');
  await hand.at(page.getByRole('button', { name: 'Close the clock' }));
  await allSent(page, 6);
  await page.goto(`/ledger/${visitId}`);
  await expect(page.getByText(`code ${code}`)).toBeVisible();
});

test('after twenty minutes without a word the Stall asks whether it has stopped', async ({ page, baseURL }) => {
  await pulledIn(page, baseURL as string);
  const hand = thumb(page);
  await hand.pad(/^Plugged in/);
  await hand.pad(/^Card shown/);
  await hand.pad(/^I see power/);
  await expect(page.getByRole('region', { name: 'Charging' })).toBeVisible();
  await page.evaluate('{ const real = Date.now; Date.now = () => real() + 21 * 60_000; }');
  const alarm = page.getByRole('alert', { name: 'Alarm' });
  await expect(alarm).toContainText('Has it stopped?');
  await alarm.getByRole('button', { name: 'It has stopped' }).tap();
  await hand.sheet('The car’s target');
  await expect(alarm).toHaveCount(0);
  await allSent(page, 6);
  const gone = (await keptEvents(page)).at(-1)?.event;
  expect([gone?.kind, gone?.payload]).toEqual(['power_gone', { why: 'car_target' }]);
});
