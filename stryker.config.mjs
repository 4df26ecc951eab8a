import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import base from './jest.config.cjs';

// Changes single lines of what MUTATE names and asks whether a unit test notices. Run by bin/test mutants.
const mutate = (process.env.MUTATE ?? '').split('\n').filter(Boolean);
// Asked are the tests beside the code, and the worked cases one folder up: what runs through everything notices everything, slowly.
const folders = [...new Set(mutate.map((f) => f.split('/').slice(0, -1).join('/')))];
const up = (folder) => folder.split('/').slice(0, -1).join('/');
// A part without tests of its own is told by those that use it.
const TOLD_BY = {
  'core/figures': ['core/compare'],
  'core/protocol': ['client/outbox'],
  'core/visit/kinds': ['core/visit/attempts', 'core/visit'],
  'core/visit/attempts': ['core/visit'],
};
const testsIn = (folder, name = /\.test\.tsx?$/) => (existsSync(folder) ? readdirSync(folder) : []).filter((f) => name.test(f)).map((f) => `${folder}/${f}`);
const tests = [...new Set(folders.flatMap((f) => [...[f, ...(TOLD_BY[f] ?? [])].flatMap((f) => testsIn(f)), ...testsIn(up(f), /-cases\.test\.ts$/)]))].filter(
  (f) => !f.includes('property'),
);
// Every change loads every test file it may be noticed by, each with all its modules: one file that holds them is loaded once.
const alone = tests.filter((f) => /\bjest\.|\.db\.test\./.test(f + readFileSync(f, 'utf8')));
const together = tests.filter((f) => !alone.includes(f));
mkdirSync('.mutants', { recursive: true });
const TOGETHER = '.mutants/together.test.ts';
// What follows the first test that fails is not run: one is enough to have noticed.
const FIRST_ONLY = `
let failed = false;
const until = (run) => async (...args) => {
  if (failed) return;
  try {
    await run(...args);
  } catch (e) {
    failed = true;
    throw e;
  }
};
const given = globalThis.test;
globalThis.it = globalThis.test = Object.assign((name, run, ms) => given(name, until(run), ms), { each: (rows) => (name, run, ms) => given.each(rows)(name, until(run), ms) });
`;
const inside = together.map((f) => `describe('${f}', () => void require('../${f.replace(/\.tsx?$/, '')}'));\n`);
writeFileSync(TOGETHER, `${FIRST_ONLY}${inside.join('')}`);

/** @type {import('@stryker-mutator/api/core').PartialStrykerOptions} */
export default {
  testRunner: 'jest',
  plugins: ['@stryker-mutator/jest-runner'],
  jest: {
    config: {
      ...base,
      watchman: false,
      roots: ['<rootDir>/.mutants', ...new Set(folders.map((f) => `<rootDir>/${f.split('/')[0]}`))],
      testMatch: [`<rootDir>/${TOGETHER}`, ...alone.map((f) => `<rootDir>/${f}`)],
    },
    enableFindRelatedTests: false,
  },
  mutate,
  coverageAnalysis: 'perTest',
  // TypeScript 7 has no compiler interface that the runner could use: it must find no such file.
  tsconfigFile: 'none.json',
  tempDirName: '.data/mutants',
  ignorePatterns: ['biome.json', '.data', '.next', 'docs', 'e2e', 'app', 'ui', 'public', 'test-results', 'playwright-report'],
  disableTypeChecks: false,
  reporters: ['clear-text', 'progress-append-only'],
  clearTextReporter: { allowColor: false, logTests: false, reportTests: false, reportMutants: true },
  concurrency: 2,
  timeoutMS: 20_000,
  allowEmpty: true,
};
