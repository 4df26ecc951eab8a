import fc from 'fast-check';
import { insidePath } from './inside-path';

describe('an address that was brought along', () => {
  it.each(['/ledger', '/ledger/0199?site=a&text=rain%20%26%20fog', '/compare#x', '/'])('is kept within the application: %s', (path) =>
    expect(insidePath(path)).toBe(path),
  );
  // WHATWG URL, "special authority ignore slashes state": strokes of either kind before a host, and tabs and line ends within, are passed over.
  it.each([
    ...[
      null,
      undefined,
      '',
      'ledger',
      '//elsewhere.invalid',
      '/\\elsewhere.invalid',
      '\\\\elsewhere.invalid',
      '/\t/elsewhere.invalid',
      '/\n\\elsewhere.invalid',
    ],
    ...['https://elsewhere.invalid/', 'javascript:alert(1)', ' /ledger', '/..//elsewhere.invalid', '/.//elsewhere.invalid', '///'],
  ])('leads nowhere else: %j', (text) => expect(insidePath(text)).toBeNull());
  it('whatever it is, a browser that follows it stays on the host', () => {
    const odd = fc
      .array(fc.constantFrom('/', '\\', '.', '..', '%2f', '\t', '\n', '@', ':', '?', '#', 'a', 'http:', 'é'), { maxLength: 8 })
      .map((a) => `/${a.join('')}`);
    fc.assert(
      fc.property(odd, (text) => {
        const path = insidePath(text);
        expect(path === null || new URL(path, 'https://ledger.invalid/sign-in').host === 'ledger.invalid').toBe(true);
      }),
      { seed: 20261201, numRuns: 1000 },
    );
  });
});
