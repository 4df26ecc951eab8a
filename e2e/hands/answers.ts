import { expect, type Locator } from '@playwright/test';

/** Waits until what the server drew answers a press: React has taken it over. Pressed earlier it does nothing, and nobody would know. */
export const answers = (what: Locator): Promise<void> =>
  expect.poll(() => what.evaluate((e) => Object.keys(e).some((key) => key.startsWith('__reactProps'))), { message: 'taken over by React' }).toBe(true);
