import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { gzipSync } from 'node:zlib';
import { bundleStall, leaveOnlyItsOwn } from './stall-bundle.mjs';

const dist = mkdtempSync(path.join(tmpdir(), 'stall-'));
const stall = path.join(dist, 'static', 'stall');
afterAll(() => rmSync(dist, { recursive: true }));

describe('the Stall’s own bundle', () => {
  const code = new Map<string, string>();
  let first: string[];
  beforeAll(async () => {
    await bundleStall(dist);
    for (const file of readdirSync(stall)) code.set(`/_next/static/stall/${file}`, readFileSync(path.join(stall, file), 'utf8'));
    const { script, withIt } = JSON.parse(readFileSync(path.join(dist, 'stall-bundle.json'), 'utf8'));
    first = [script, ...withIt];
  });
  const kB = (files: Iterable<string>) => [...files].reduce((sum, f) => sum + gzipSync(code.get(f) as string, { level: 9 }).length, 0) / 1000;
  const named = (file: string, by: RegExp) => [...(code.get(file) as string).matchAll(by)].map(([, name]) => `/_next/static/stall/${name}`);
  const AT_ONCE = /\b(?:from|import)"\.\/([^"]+)"/g;
  const LATER = /\bimport\("\.\/([^"]+)"\)/g;

  it('is at most 180 kB before the first tap and 320 kB in all, gzipped', () => {
    expect(kB(first)).toBeLessThanOrEqual(180);
    expect(kB(code.keys())).toBeLessThanOrEqual(320);
  });
  it('names every file that comes at once, and each of them once', () => {
    expect(first).toHaveLength(new Set(first).size);
    expect(new Set(first.flatMap((file) => named(file, AT_ONCE)))).toEqual(new Set(first.slice(1)));
  });
  it('holds nothing that no part of it asks for', () => {
    const asked = new Set([first[0], ...[...code.keys()].flatMap((file) => [...named(file, AT_ONCE), ...named(file, LATER)])]);
    expect([...code.keys()].filter((file) => !asked.has(file))).toEqual([]);
  });
  it('comes in few files: what parts share with what is there before them is not parted once more', () => {
    expect(first.length).toBeLessThanOrEqual(4);
    expect(code.size).toBeLessThanOrEqual(24);
  });
  it('asks for nothing of a build for trying out', () => {
    expect([...code.values()].filter((text) => text.includes('process.env'))).toEqual([]);
  });
});

describe('the Stall’s page', () => {
  const file = path.join(dist, 'server', 'app', 'stall.html');
  const leftOf = (page: string) => {
    mkdirSync(path.dirname(file), { recursive: true });
    writeFileSync(file, page);
    leaveOnlyItsOwn(dist);
    return readFileSync(file, 'utf8');
  };
  const BEGINS = '<script type="module" src="/_next/static/stall/start-ABC.js"></script>';
  const ITS_OWN = `<link rel="modulepreload" href="/_next/static/stall/X.js"/><script src="/sheet.js"></script><main>Opening</main><script src="/stall.js"></script>${BEGINS}`;

  it('keeps its own scripts and loses those of the other pages, inline ones too', () => {
    const others =
      '<link rel="preload" as="script" fetchPriority="low" href="/_next/static/chunks/a.js"/><script src="/_next/static/chunks/b.js" async=""></script><script id="_R_">x<y</script><script>(self.__next_f=self.__next_f||[]).push([0])</script>';
    expect(leftOf(`<head><link rel="stylesheet" href="/c.css"/></head>${others}${ITS_OWN}${others}`)).toBe(
      `<head><link rel="stylesheet" href="/c.css"/></head>${ITS_OWN}`,
    );
  });
  it('that would never begin ends the build', () => {
    expect(() => leftOf('<main>Opening</main>')).toThrow('is not as the Stall needs it');
    expect(() => leftOf(`${ITS_OWN}<b>__next_f</b>`)).toThrow('is not as the Stall needs it');
  });
});
