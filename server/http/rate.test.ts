import { perMinute } from './rate';

it('lets so many a minute in, each person for themselves, and says when to come again', async () => {
  let now = 1_000_000;
  const take = perMinute(2, () => now);
  expect([take('a'), take('a'), take('b')]).toEqual([null, null, null]);
  now += 20_500;
  const late = take('a');
  expect([late?.status, late?.headers.get('retry-after'), late?.headers.get('cache-control')]).toEqual([429, '40', 'no-store']);
  expect(await late?.json()).toEqual({ error: 'More than 2 requests in a minute. Wait 40 s and try again.' });
  expect(take('b')).toBeNull();
  now += 39_500;
  expect(take('a')).toBeNull();
});
