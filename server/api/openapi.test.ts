import { existsSync, readFileSync } from 'node:fs';
import { COMPARE_NAMES } from '@/core/compare/compare-address';
import { LISTS } from './lists';
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
