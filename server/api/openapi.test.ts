import { existsSync, readFileSync } from 'node:fs';
import { COMPARE_NAMES } from '@/core/compare/compare-address';
import { LISTS } from './lists';
import { methodRefused } from './methods';
import { OPERATIONS, openApi } from './openapi';
import { PAGE_NAMES, VISIT_NAMES } from './pages';

describe('the API as it is described', () => {
  it.each(Object.entries(OPERATIONS).flatMap(([path, methods]) => Object.keys(methods).map((m) => [m.toUpperCase(), path] as const)))(
    '%s %s is a route',
    (method, path) => {
      const file = `app/api/v1${path.replaceAll(/\{(\w+)\}/g, (_, name: string) => `[${name === 'sheet' ? 'table' : name}]`)}/route.ts`;
      expect(existsSync(file)).toBe(true);
      expect(readFileSync(file, 'utf8')).toMatch(new RegExp(`export const ${method}\\b`));
    },
  );
  it('refuses the methods that it does not describe, and those alone', async () => {
    for (const [path, methods] of Object.entries(OPERATIONS)) {
      const address = `/api/v1${path.replace('{visitId}', '0199d251-cbc0-70e0-8157-e26b8d8d88cc').replace('{sheet}', 'visits.csv')}`;
      const described = Object.keys(methods).flatMap((m) => (m === 'get' ? ['GET', 'HEAD'] : [m.toUpperCase()]));
      for (const method of ['GET', 'HEAD', 'POST', 'PUT', 'PATCH', 'DELETE']) {
        const refused = methodRefused(method, address);
        expect([method, path, refused === null]).toEqual([method, path, described.includes(method)]);
        if (!refused) continue;
        expect([refused.status, refused.headers.get('content-type'), refused.headers.get('allow')]).toEqual([
          405,
          'application/problem+json',
          described.join(', '),
        ]);
        expect(((await refused.json()) as { title: string }).title).toContain(`no ${method}.`);
      }
      expect(methodRefused('OPTIONS', address)).toBeNull();
    }
    for (const other of ['/api/v1/visits/join', '/api/v1/visits/mark', '/api/v1/import/sheet', '/api/v1/export', '/ledger'])
      expect(methodRefused('PUT', other)).toBeNull();
  });
  it('takes in an address what it describes, and nothing else', () => {
    const names = (path: string) => (OPERATIONS[path]?.get?.parameters ?? []).flatMap((p) => (p.in === 'query' ? [p.name] : [])).sort();
    const takes = (of: readonly string[]) => [...of, 'household'].sort();
    for (const list of LISTS) expect(names(`/${list}`)).toEqual(takes(VISIT_NAMES));
    for (const list of ['/places', '/tariffs']) expect(names(list)).toEqual(takes(PAGE_NAMES));
    expect(names('/compare')).toEqual(takes(COMPARE_NAMES));
  });
  it('names every schema that it refers to', () => {
    const text = JSON.stringify(openApi('http://127.0.0.1'));
    const { components } = JSON.parse(text) as { components: { schemas: object } };
    for (const [, name] of text.matchAll(/"#\/components\/schemas\/(\w+)"/g)) expect(Object.keys(components.schemas)).toContain(name);
  });
});
