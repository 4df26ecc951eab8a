import type { Page } from '@playwright/test';
import { addPlace, type Member, newHousehold, type Place } from './household';
import { openStall } from './stall';

/** A household of its own with one site of two stalls, and the phone pulled in at stall 1. */
export async function pulledIn(page: Page, baseURL: string): Promise<{ who: Member; place: Place }> {
  const who = await newHousehold(page, baseURL);
  const place = await addPlace(page, baseURL, { network: 'Bluebarn', site: 'Lipa Barn' });
  await openStall(page);
  await pullIn(page);
  return { who, place };
}

export async function pullIn(page: Page): Promise<void> {
  await page.getByRole('button', { name: /^Lipa Barn/ }).tap();
  await page.getByRole('radio', { name: /^Stall 1/ }).tap();
  await page.getByRole('button', { name: /^Pulled in/, disabled: false }).tap();
  await page.getByRole('button', { name: /^Stall 1 chosen/ }).waitFor();
}
