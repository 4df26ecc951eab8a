import { expect, type Locator, type Page } from '@playwright/test';
import type { KeptEvent } from '@/client/store/phone-store';

/** A driver's thumb: taps pads and sheets, and counts. */
export function thumb(page: Page) {
  let taps = 0;
  const pads = page.locator('[data-resting]');
  const tap = async (what: Locator) => {
    await what.tap();
    taps += 1;
  };
  const digits = async (values: (string | null)[]) => {
    const dialog = page.getByRole('dialog');
    const fields = dialog.locator('button[aria-pressed]').filter({ has: page.locator('.num') });
    for (const [i, value] of values.entries()) {
      if (value === null) continue;
      await fields.nth(i).tap();
      for (const digit of value) await dialog.getByRole('button', { name: digit === '.' ? 'Point' : digit, exact: true }).tap();
    }
  };
  return {
    get taps() {
      return taps;
    },
    /** A pad, once it takes touches again. */
    pad: async (name: RegExp | string) => tap(pads.getByRole('button', { name, disabled: false })),
    /** Something in the open sheet. */
    sheet: async (name: RegExp | string) => {
      const dialog = page.getByRole('dialog');
      const named = { name, exact: typeof name === 'string' };
      await tap(dialog.getByRole('button', named).or(dialog.getByRole('radio', named)));
    },
    /** Anything else on the page. */
    at: tap,
    /** A reading, kept although it is asked about: seconds after power no honest figure is likely. */
    reading: async (values: (string | null)[]) => {
      await pads.getByRole('button', { name: /^Add a reading/, disabled: false }).tap();
      await digits(values);
      const dialog = page.getByRole('dialog');
      const save = dialog.getByRole('button', { name: 'Save the reading' });
      await expect(async () => {
        if (await dialog.isVisible()) await save.tap({ timeout: 1000 });
        await expect(dialog).toHaveCount(0, { timeout: 500 });
      }).toPass();
    },
    /** Figures by the digit pad: not counted, as the budget leaves them out. */
    figures: (values: (string | null)[]) => digits(values),
  };
}

/** The events of the phone's own store, for arithmetic apart from the application's. */
export async function keptEvents(page: Page): Promise<KeptEvent[]> {
  return page.evaluate(async () => {
    const name = (await indexedDB.databases()).map((d) => d.name ?? '').find((n) => n.startsWith('mile-')) as string;
    const db = await new Promise<IDBDatabase>((done, fail) => {
      const r = indexedDB.open(name);
      r.onsuccess = () => done(r.result);
      r.onerror = () => fail(r.error);
    });
    const all = await new Promise<KeptEvent[]>((done, fail) => {
      const r = db.transaction('event').objectStore('event').getAll();
      r.onsuccess = () => done(r.result);
      r.onerror = () => fail(r.error);
    });
    db.close();
    return all.sort((a, b) => a.event.seq - b.event.seq);
  });
}

/** Waits until every event that the phone keeps is sent, at least `least` of them, and the corner says so. */
export async function allSent(page: Page, least = 1): Promise<void> {
  await expect
    .poll(async () => {
      const kept = await keptEvents(page);
      return kept.length >= least && kept.every((k) => k.state === 'sent');
    })
    .toBe(true);
  await expect(page.getByRole('status').filter({ hasText: /All\s*sent/ })).toBeVisible();
}

/** Loads the page anew, once `least` events are on the disk: a touch takes a moment to get there. */
export async function reloadWhenKept(page: Page, least: number): Promise<void> {
  await expect.poll(async () => (await keptEvents(page)).length).toBeGreaterThanOrEqual(least);
  await page.reload();
}

/** Opens the Stall with the service worker in place; a worker whose installing was cut off is installed at the next load. */
export async function openStall(page: Page): Promise<void> {
  await expect(async () => {
    await page.goto('/stall');
    await page.waitForFunction(() => navigator.serviceWorker.controller?.state === 'activated', undefined, { timeout: 20_000 });
  }).toPass({ timeout: 100_000 });
}
