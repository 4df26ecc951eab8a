import { expect, test } from '@playwright/test';
import { pulledIn } from '../hands/at-the-site';
import { addPlace } from '../hands/household';
import { allSent, keptEvents, openStall, thumb } from '../hands/stall';

test('left without a charge, the next visit is the same stop, unless it is made to stand alone', async ({ page, baseURL }) => {
  await pulledIn(page, baseURL as string);
  await addPlace(page, baseURL as string, { network: 'Copperbeech', site: 'Hollin Bridge' });
  const hand = thumb(page);
  await hand.pad(/^Fault/);
  await hand.sheet('Stall dark or out of order');
  await hand.sheet('Leave');
  // Off until chosen.
  await hand.sheet('On to the next site');
  await hand.sheet('Gave up');
  await page.getByRole('button', { name: 'Leave the visit' }).tap();
  await expect(page.getByText('One stop with the visit before.')).toBeVisible();
  // It outlives the page, and is used up by the next pulling in.
  await openStall(page);
  await expect(page.getByText('One stop with the visit before.')).toBeVisible();
  await page.getByRole('button', { name: /^Hollin Bridge/ }).tap();
  await page.getByRole('radio', { name: /^Stall 1/ }).tap();
  await page.getByRole('button', { name: /^Pulled in/, disabled: false }).tap();
  await hand.pad(/^More/);
  await hand.sheet('Pulled out …');
  await hand.sheet('On to the next site');
  await hand.sheet('Closed');
  await page.getByRole('button', { name: 'Leave the visit' }).tap();
  await page.getByRole('button', { name: 'It stands alone' }).tap();
  await page.getByRole('button', { name: /^Hollin Bridge/ }).tap();
  await page.getByRole('button', { name: /^Pulled in/, disabled: false }).tap();
  await allSent(page, 8);
  const events = (await keptEvents(page)).map((k) => k.event).sort((a, b) => a.at - b.at);
  const [first, second, third] = events.filter((e) => e.kind === 'pulled_in').map((e) => e.visitId);
  const out = events.filter((e) => e.kind === 'pulled_out');
  expect(out[0]?.payload).toEqual({ reason: 'gave_up', continuesVisit: second });
  expect(out[1]?.payload.continuesVisit).not.toBe(third);
  await page.goto(`/ledger/${first}`);
  const stop = page.getByRole('region', { name: 'One stop of 2 visits' });
  await expect(stop).toContainText('Lipa Barn without a charge, then Hollin Bridge without a charge');
});
