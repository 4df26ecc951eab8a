import { askToLast } from './lasting-storage';

const DAY = 86_400_000;
const NOW = Date.UTC(2026, 11, 1);
const kept = new Map<string, string>();
const browser = (persisted: boolean) => {
  const asked = jest.fn(() => Promise.resolve(true));
  return { persisted: () => Promise.resolve(persisted), persist: asked };
};
beforeEach(() => {
  kept.clear();
  Object.assign(globalThis, { localStorage: { getItem: (k: string) => kept.get(k) ?? null, setItem: (k: string, v: string) => kept.set(k, v) } });
});
afterAll(() => Reflect.deleteProperty(globalThis, 'localStorage'));

describe('that nothing is cleared away here', () => {
  it('is asked for once a week, on a clock set back too', async () => {
    const b = browser(false);
    for (const at of [NOW, NOW + 6 * DAY, NOW - 6 * DAY]) await askToLast(at, b);
    expect(b.persist).toHaveBeenCalledTimes(1);
    await askToLast(NOW + 7 * DAY, b);
    await askToLast(NOW - DAY, b);
    expect(b.persist).toHaveBeenCalledTimes(3);
  });
  it('is not asked for where it is so already, nor where a browser knows nothing of it', async () => {
    const b = browser(true);
    await askToLast(NOW, b);
    expect(b.persist).not.toHaveBeenCalled();
    await expect(askToLast(NOW, undefined)).resolves.toBeUndefined();
    await expect(askToLast(NOW, {} as StorageManager)).resolves.toBeUndefined();
  });
  it('is no trouble where the browser refuses, or keeps nothing', async () => {
    await expect(askToLast(NOW, { ...browser(false), persist: () => Promise.reject(new Error('no')) })).resolves.toBeUndefined();
    Object.assign(globalThis, {
      localStorage: {
        getItem: () => {
          throw new Error('no');
        },
      },
    });
    await expect(askToLast(NOW, browser(false))).resolves.toBeUndefined();
  });
});
