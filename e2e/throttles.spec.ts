import { expect, test } from '@playwright/test';
import { v7 } from 'uuid';
import { from, newHousehold, own } from './hands/household';

/** How often each status was answered. */
const tally = (statuses: number[]) => Object.fromEntries([...new Set(statuses)].sort().map((s) => [s, statuses.filter((x) => x === s).length]));

test('two hundred guesses at once: five are checked, and the owner comes in on a device that is known', async ({ browser, page, baseURL }) => {
  const base = baseURL as string;
  const who = await newHousehold(page, base);
  const stranger = await browser.newContext({ baseURL: base });
  const guess = (headers: Record<string, string>) =>
    stranger.request.post('/api/v1/session', { headers, data: { email: who.email, password: `guess ${v7()}` } });
  const here = from(base);
  const answers = await Promise.all(Array.from({ length: 200 }, () => guess(here)));
  expect(tally(answers.map((a) => a.status()))).toEqual({ 401: 5, 429: 195 });
  expect(answers.find((a) => a.status() === 429)?.headers()['retry-after']).toMatch(/^\d+$/);
  // From an address each: the account itself is slowed for strangers.
  const spread = await Promise.all(Array.from({ length: 200 }, () => guess(from(base))));
  expect(spread.filter((a) => a.status() === 401).length).toBeLessThanOrEqual(25);
  // The owner's own device has a count of its own.
  expect((await page.request.post('/api/v1/session', { headers: here, data: { email: who.email, password: who.password } })).status()).toBe(200);
  await stranger.close();
});

test('from one address, whatever the account, twenty guesses are checked', async ({ page, baseURL }) => {
  const here = from(baseURL as string);
  const answers = await Promise.all(
    Array.from({ length: 200 }, () => page.request.post('/api/v1/session', { headers: here, data: { email: `${v7()}@example.invalid`, password: 'x' } })),
  );
  expect(tally(answers.map((a) => a.status()))).toEqual({ 401: 20, 429: 180 });
});

test('what is said of an address without our front is not believed', async ({ page, baseURL }) => {
  const email = `${v7()}@example.invalid`;
  const guess = () =>
    page.request.post('/api/v1/session', {
      headers: { ...own(baseURL as string), 'x-forwarded-for': v7(), 'x-real-ip': v7(), 'x-mile-front': 'guessed' },
      data: { email, password: 'x' },
    });
  expect(tally((await Promise.all(Array.from({ length: 12 }, guess))).map((a) => a.status()))[429]).toBeGreaterThanOrEqual(7);
});

test('accounts are made twenty an hour from one address, however many ask at once', async ({ page, baseURL }) => {
  const headers = from(baseURL as string);
  const make = () =>
    page.request.post('/api/v1/household', {
      headers,
      data: { name: 'A', householdName: 'B', email: `${v7()}@example.invalid`, password: 'a long enough one', currency: 'EUR', zone: 'UTC' },
    });
  expect(tally((await Promise.all(Array.from({ length: 60 }, make))).map((a) => a.status()))).toEqual({ 201: 20, 429: 40 });
});
