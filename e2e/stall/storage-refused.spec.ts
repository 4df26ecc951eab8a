import { expect, test } from '@playwright/test';
import sharp from 'sharp';
import { pulledIn, pullIn } from '../hands/at-the-site';
import { addPlace, newHousehold } from '../hands/household';
import { keptEvents, thumb } from '../hands/stall';

const eventsThere = async (page: import('@playwright/test').Page) => {
  const rows = (await (await page.request.get('/api/v1/visits/lately')).json()).rows as { id: string }[];
  const answer = rows[0] ? await (await page.request.get(`/api/v1/visits/${rows[0].id}/events`)).json() : { events: [] };
  return (answer.events as { kind: string; seq: number; payload: { photo?: string } }[]).sort((a, b) => a.seq - b.seq);
};

test('storage that is refused is said at once; the visit goes on in memory and is sent from there', async ({ page, context, baseURL }) => {
  await newHousehold(page, baseURL as string);
  await addPlace(page, baseURL as string, { network: 'Bluebarn', site: 'Lipa Barn' });
  await page.addInitScript("IDBFactory.prototype.open = () => { throw new DOMException('The operation is insecure.', 'SecurityError'); }");
  await page.goto('/stall');
  await expect(page.getByRole('alert').filter({ hasText: 'This phone cannot keep what you record: The operation is insecure.' })).toBeVisible();
  await pullIn(page);
  const hand = thumb(page);
  await page.waitForLoadState('networkidle');
  await expect.poll(async () => (await eventsThere(page)).length).toBe(2);
  await expect(page.getByRole('status').filter({ hasText: /All\s*sent/ })).toBeVisible();
  await context.setOffline(true);
  await hand.pad(/^Plugged in/);
  await expect(page.getByText(/In memory\s*only 1/)).toBeVisible();
  await expect(page.getByRole('alert').filter({ hasText: '1 event is held in this page only' })).toBeVisible();
  await hand.pad(/^Card shown/);
  await hand.pad(/^I see power/);
  // A picture is held beside them.
  await hand.pad(/^More/);
  await hand.sheet('Photo …');
  const dialog = page.getByRole('dialog');
  const file = await sharp({ create: { width: 800, height: 600, channels: 3, background: '#456' } })
    .jpeg()
    .toBuffer();
  await dialog.getByLabel('Take or choose a photo').setInputFiles({ name: 'bay.jpg', mimeType: 'image/jpeg', buffer: file });
  await hand.sheet('Keep it with the visit');
  await expect(page.getByText('4 events and 1 picture are held in this page only')).toBeVisible();
  await context.setOffline(false);
  await expect(page.getByText(/In memory/)).toHaveCount(0);
  await expect
    .poll(async () => (await eventsThere(page)).map((e) => e.kind))
    .toEqual(['pulled_in', 'stall_chosen', 'plugged', 'means_shown', 'power_seen', 'note']);
  expect((await eventsThere(page)).map((e) => e.seq)).toEqual([1, 2, 3, 4, 5, 6]);
  const sha256 = (await eventsThere(page)).at(-1)?.payload.photo;
  expect((await page.request.get(`/api/v1/photos/${sha256}`)).headers()['content-type']).toBe('image/jpeg');
  // A reload loses nothing that was sent: the visit is gone on with from the server's copy.
  await page.reload();
  await page.getByRole('button', { name: /^(Join|Go on with): Lipa Barn/ }).tap();
  await hand.pad(/^I pressed stop/);
  await expect.poll(async () => (await eventsThere(page)).map((e) => e.seq)).toEqual([1, 2, 3, 4, 5, 6, 7]);
  await expect(page.getByRole('status').filter({ hasText: /All\s*sent/ })).toBeVisible();
});

test('storage that is full in mid-visit: what cannot be written down is held and sent, and written down once there is room', async ({
  page,
  context,
  baseURL,
}) => {
  await pulledIn(page, baseURL as string);
  const hand = thumb(page);
  await context.setOffline(true);
  await page.evaluate(
    "{ const put = IDBObjectStore.prototype.put; window.full = true; IDBObjectStore.prototype.put = function (...a) { if (window.full) throw new DOMException('no room', 'QuotaExceededError'); return put.apply(this, a); }; }",
  );
  await hand.pad(/^Plugged in/);
  await expect(page.getByRole('alert').filter({ hasText: 'This phone cannot keep what you record: its storage is full' })).toBeVisible();
  await hand.pad(/^Card shown/);
  await expect(page.getByText(/In memory\s*only 2/)).toBeVisible();
  await expect(page.getByRole('button', { name: /^Card shown, .*Correct$/ })).toBeVisible();
  await page.evaluate('window.full = false');
  await hand.pad(/^I see power/);
  await expect(page.getByText(/In memory/)).toHaveCount(0);
  await expect
    .poll(async () => (await keptEvents(page)).map((k) => k.event.kind))
    .toEqual(['pulled_in', 'stall_chosen', 'plugged', 'means_shown', 'power_seen']);
  await context.setOffline(false);
  await expect(page.getByRole('status').filter({ hasText: /All\s*sent/ })).toBeVisible();
  expect((await eventsThere(page)).map((e) => [e.seq, e.kind])).toEqual([
    [1, 'pulled_in'],
    [2, 'stall_chosen'],
    [3, 'plugged'],
    [4, 'means_shown'],
    [5, 'power_seen'],
  ]);
});
