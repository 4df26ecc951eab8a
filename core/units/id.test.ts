import { v1, v3, v4, v5, v6, v7 } from 'uuid';
import { isId } from './id';
import { FIRST_INSTANT, isInstant, LAST_INSTANT } from './instant';

describe('an id', () => {
  const space = v4();
  it.each([v1(), v3('x', space), v4(), v5('x', space), v6(), v7()])('is one of any version of RFC 9562: %s', (id) => expect(isId(id)).toBe(true));
  // Forms and versions that the RFC gives no meaning, or another.
  it.each<unknown>([
    '00000000-0000-0000-0000-000000000000',
    'ffffffff-ffff-ffff-ffff-ffffffffffff',
    '01900000-0000-9000-8000-000000000001',
    '01900000-0000-7000-7000-000000000001',
    '01900000-0000-7000-c000-000000000001',
    '01900000-0000-7000-8000-00000000000A',
    '01900000-0000-7000-8000-0000000000011',
    ' 01900000-0000-7000-8000-000000000001',
    '01900000-0000-7000-8000-000000000001\n',
    '01900000000070008000000000000001',
    '',
    7,
    null,
    undefined,
    ['01900000-0000-7000-8000-000000000001'],
  ])('is not %j', (value) => expect(isId(value)).toBe(false));
});

describe('an instant that a record may name', () => {
  it.each([FIRST_INSTANT, LAST_INSTANT, Date.UTC(2025, 9, 14)])('%d', (ms) => expect(isInstant(ms)).toBe(true));
  it.each<unknown>([FIRST_INSTANT - 1, LAST_INSTANT + 1, -1, 1.7e12 + 0.5, Number.NaN, Number.POSITIVE_INFINITY, 2 ** 53, '1700000000000', null, undefined])(
    'is not %p',
    (ms) => expect(isInstant(ms)).toBe(false),
  );
});
