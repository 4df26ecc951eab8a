import { contentSecurityPolicy, isStaticShell } from './content-security';

const HASHES = { '/stall': ["'sha256-AAA='"], '/_not-found': ["'sha256-NNN='"] };
const policyOf = (page: string) => contentSecurityPolicy(page, 'n1', HASHES);
const part = (policy: string, name: string) => policy.split('; ').find((p) => p.startsWith(name));

describe('the content security policy', () => {
  it('of a static shell names its inline scripts, and no nonce that could never match', () => {
    expect(isStaticShell('/stall', HASHES)).toBe(true);
    expect(part(policyOf('/stall'), 'script-src')).toBe("script-src 'self' 'sha256-AAA=' 'sha256-NNN='");
  });
  it('of any other page carries the request’s nonce, and lets a page not found in', () => {
    for (const page of ['/ledger', '/nowhere', '/constructor']) {
      expect(part(policyOf(page), 'script-src')).toBe("script-src 'self' 'nonce-n1' 'sha256-NNN='");
    }
  });
  it('never says unsafe-inline, lets nothing be framed and no form go elsewhere', () => {
    const policy = policyOf('/ledger');
    expect(policy).not.toContain('unsafe');
    expect(part(policy, 'frame-ancestors')).toBe("frame-ancestors 'none'");
    expect(part(policy, 'form-action')).toBe("form-action 'self'");
    expect(part(policy, 'connect-src')).toBe("connect-src 'self'");
    expect(part(policy, 'object-src')).toBe("object-src 'none'");
  });
});
