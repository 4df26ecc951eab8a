import { expect, test } from '@playwright/test';
import { visitCode } from '@/core/visit/visit-code';
import { pulledIn, pullIn } from '../hands/at-the-site';
import { addPlace, newHousehold, own } from '../hands/household';
import { invitedMember } from '../hands/people';
import { allSent, keptEvents, openStall, thumb } from '../hands/stall';

test('an invited driver joins the running visit on a second phone: one visit, both named', async ({ page, browser, baseURL }, info) => {
  const base = baseURL as string;
  await pulledIn(page, base);
  await allSent(page, 2);
  const context = await browser.newContext({ ...info.project.use, baseURL: base });
  const second = await context.newPage();
  await invitedMember(page, second.request, base, 'driver', 'Vid Kos');
  await openStall(second);
  await second.getByRole('button', { name: /^Join: Lipa Barn/ }).tap();
  await thumb(page).pad(/^Plugged in/);
  await thumb(second).pad(/^Plugged in/);
  await allSent(page, 3);
  const mine = (await keptEvents(second)).find((k) => k.event.kind === 'plugged' && k.event.role === 'observer');
  await expect.poll(async () => (await keptEvents(second)).filter((k) => k.state !== 'sent').length).toBe(0);
  await page.goto(`/ledger/${mine?.event.visitId}`);
  await expect(page.getByRole('region', { name: 'The record' })).toContainText(/also seen by Vid Kos/);
  await context.close();
});

test('without a network a second phone joins by the code that the first shows: at the server the two are one', async ({ page, browser, baseURL }, info) => {
  const base = baseURL as string;
  await newHousehold(page, base);
  const place = await addPlace(page, base, { network: 'Bluebarn', site: 'Lipa Barn' });
  const context = await browser.newContext({ ...info.project.use, baseURL: base });
  const second = await context.newPage();
  await invitedMember(page, second.request, base, 'driver', 'Vid Kos');
  for (const phone of [page, second]) {
    await openStall(phone);
    await expect(phone.getByRole('button', { name: /^Lipa Barn/ })).toBeVisible();
    await phone.context().setOffline(true);
  }
  await pullIn(page);

  await thumb(page).pad(/^More/);
  await thumb(page).sheet('Another phone joins …');
  const visitId = (await keptEvents(page))[0]?.event.visitId as string;
  await expect(page.getByRole('dialog')).toContainText(visitCode(visitId));
  await expect(page.getByRole('img', { name: /QR code/ })).toBeVisible();
  await page.keyboard.press('Escape');

  await second.getByRole('button', { name: 'Join by code' }).tap();
  await second.getByLabel('Code of the visit').fill('7C2');
  await second.getByRole('dialog').getByRole('button', { name: 'Join' }).tap();
  await expect(second.getByText(/^Eight signs/)).toBeVisible();
  await second.getByLabel('Code of the visit').fill(visitCode(visitId).toLowerCase());
  await second.getByRole('dialog').getByRole('button', { name: 'Join' }).tap();
  await expect(second.getByText(`One visit with ${visitCode(visitId)}, recorded on another phone.`)).toBeVisible();
  await second.getByRole('button', { name: /^Lipa Barn/ }).tap();
  await second.getByRole('button', { name: /^Pulled in/, disabled: false }).tap();
  await second.getByRole('button', { name: /^Pulled in, .*Correct$/ }).waitFor();
  await thumb(page).pad(/^Plugged in/);
  await context.setOffline(false);
  await expect.poll(async () => (await keptEvents(second)).every((k) => k.state === 'sent')).toBe(true);
  await page.context().setOffline(false);
  await allSent(page, 3);

  await page.goto('/ledger');
  await expect(page.locator('[data-ledger-row]')).toHaveCount(1);
  await page.goto(`/ledger/${visitId}`);
  await expect(page.getByText(/recorded apart and joined later/)).toBeVisible();
  // What the QR code of the first leads to: site and code are there, one pad is left.
  await second.goto(`/stall?join=${visitCode(visitId).replace('-', '')}&site=${place.siteId}`);
  await expect(second.getByRole('heading', { name: 'Lipa Barn' })).toBeVisible();
  await context.close();
});

test('who looks on is offered what they can add to the visit, and nothing that changes places or garage', async ({ page, browser, baseURL }, info) => {
  const base = baseURL as string;
  await pulledIn(page, base);
  await allSent(page, 2);
  const context = await browser.newContext({ ...info.project.use, baseURL: base });
  const second = await context.newPage();
  await invitedMember(page, second.request, base, 'observer', 'Vid Kos');
  await openStall(second);
  const join = second.getByRole('button', { name: /^Join: Lipa Barn/ });
  await expect(join).toBeVisible();
  await expect(second.getByRole('button', { name: 'Add a site' })).toHaveCount(0);
  await expect(second.getByRole('button', { name: 'Garage' })).toHaveCount(0);
  await second.getByRole('button', { name: /^Lipa Barn/ }).tap();
  await second.getByRole('radio', { name: /^Stall 1/ }).tap();
  await expect(second.getByText(/^At most/)).toBeVisible();
  for (const name of ['Add a stall', 'Change this stall', 'Change the site']) await expect(second.getByRole('button', { name })).toHaveCount(0);
  await expect(second.getByRole('radio', { name: 'Closed today' })).toHaveCount(0);
  await join.tap();
  const hand = thumb(second);
  await hand.pad(/^More/);
  await hand.sheet('Look at the bays …');
  await hand.sheet('Dark');
  await hand.sheet('Record the bays');
  await hand.pad(/^More/);
  await hand.sheet('Another stall …');
  await expect(second.getByRole('dialog').getByRole('button', { name: /^Stall 1/ })).toBeVisible();
  await expect(second.getByRole('button', { name: 'Add a stall' })).toHaveCount(0);
  await second.keyboard.press('Escape');
  // What was seen of the bays is the visit's; nothing of it waits or was refused as a change of the stalls.
  await expect.poll(async () => (await keptEvents(second)).filter((k) => k.state !== 'sent').length).toBe(0);
  expect((await keptEvents(second)).map((k) => k.event.kind)).toContain('survey');
  await expect(second.getByText(/refused|to settle/)).toHaveCount(0);
  await context.close();
});

test('who is made a reader while their visit runs is told that what they tap stays on their phone', async ({ page, browser, baseURL }, info) => {
  const base = baseURL as string;
  await newHousehold(page, base);
  await addPlace(page, base, { network: 'Bluebarn', site: 'Lipa Barn' });
  const context = await browser.newContext({ ...info.project.use, baseURL: base });
  const phone = await context.newPage();
  const { personId } = await invitedMember(page, phone.request, base, 'driver', 'Vid Kos');
  const made = async (role: string) => expect((await page.request.put('/api/v1/members', { headers: own(base), data: { personId, role } })).ok()).toBe(true);
  await openStall(phone);
  await pullIn(phone);
  await allSent(phone, 2);
  const told = phone.getByRole('alert', { name: 'Who records' });
  await expect(told).toHaveCount(0);
  await made('reader');
  await thumb(phone).pad(/^Plugged in/);
  await expect(phone.getByRole('button', { name: '1 refused' })).toBeVisible();
  await phone.reload();
  await expect(told).toContainText('You read this ledger: what is recorded here is for its drivers to change. What you tap stays on this phone.');
  expect((await keptEvents(phone)).map((k) => k.event.kind)).toContain('plugged');
  await context.close();
});
