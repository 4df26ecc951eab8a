import { readFileSync } from 'node:fs';

type Locked = { version?: string; license?: string; hasInstallScript?: boolean; resolved?: string; integrity?: string; link?: boolean; inBundle?: boolean };
const read = (file: string) => JSON.parse(readFileSync(file, 'utf8'));
const manifest = read('package.json') as { dependencies: Record<string, string>; devDependencies: Record<string, string> };
const locked = Object.entries(read('package-lock.json').packages as Record<string, Locked>).filter(([where]) => where !== '');
const nameOf = (where: string) => where.slice(where.lastIndexOf('node_modules/') + 'node_modules/'.length);

/** Licences that were read and found to let this be used and handed on. A new one is looked at before its name is added. */
const LICENCES = new Set([
  'MIT',
  'ISC',
  '0BSD',
  'BSD-2-Clause',
  'BSD-3-Clause',
  'Apache-2.0',
  'BlueOak-1.0.0',
  'CC0-1.0',
  'CC-BY-4.0',
  'OFL-1.1',
  // Permissive; of a reader of YAML that only the tests carry.
  'PSF-2.0',
  'Python-2.0',
  // Unchanged, as files of their own: lightningcss and axe.
  'MPL-2.0',
  // Linked as a library, replaceable: libvips.
  'LGPL-3.0-or-later',
  'Apache-2.0 AND LGPL-3.0-or-later',
  'Apache-2.0 AND LGPL-3.0-or-later AND MIT',
  'Apache-2.0 AND MIT',
  'MIT OR Apache-2.0',
  '(MIT OR CC0-1.0)',
]);
/** Packages that say their licence in a file of their own alone, and what it says. */
const IN_A_FILE: Readonly<Record<string, string>> = { 'png-js': 'MIT' };
/** Packages that bring an install script. None of them is run: everything is installed with --ignore-scripts. */
const WITH_SCRIPTS = new Set(['@parcel/watcher', '@swc/core', 'esbuild', 'tesseract.js']);

describe('what this is built on', () => {
  it('is asked for by exact version', () => {
    for (const [name, version] of Object.entries({ ...manifest.dependencies, ...manifest.devDependencies }))
      expect([name, version]).toEqual([name, expect.stringMatching(/^\d+\.\d+\.\d+$/)]);
  });
  it('has a licence that is named here', () => {
    const others = locked
      .filter(([where, p]) => !p.link && !LICENCES.has(p.license ?? IN_A_FILE[nameOf(where)] ?? 'none'))
      .map(([where, p]) => `${nameOf(where)}: ${p.license ?? 'none'}`);
    expect(others).toEqual([]);
  });
  it('runs no script at install that is not named here', () => {
    expect(locked.filter(([where, p]) => p.hasInstallScript && !WITH_SCRIPTS.has(nameOf(where))).map(([where]) => where)).toEqual([]);
    expect(readFileSync('bin/parts/machine.sh', 'utf8')).toContain('npm ci --ignore-scripts');
  });
  it('is fetched by its hash, from nowhere but the registry the machine is set up for', () => {
    expect(locked.filter(([, p]) => !p.link && !p.inBundle && !p.integrity).map(([where]) => where)).toEqual([]);
    expect(locked.filter(([, p]) => p.resolved && /^(git|file|http:)/.test(p.resolved)).map(([where]) => where)).toEqual([]);
  });
});
