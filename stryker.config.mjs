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
const tests = folders.flatMap((folder) => [
  ...[folder, ...(TOLD_BY[folder] ?? [])].map((f) => `<rootDir>/${f}/*.test.ts?(x)`),
  `<rootDir>/${up(folder)}/*-cases.test.ts`,
]);

/** @type {import('@stryker-mutator/api/core').PartialStrykerOptions} */
export default {
  testRunner: 'jest',
  plugins: ['@stryker-mutator/jest-runner'],
  jest: {
    config: {
      ...base,
      roots: [...new Set(folders.map((f) => `<rootDir>/${f.split('/')[0]}`))],
      testMatch: tests,
      testPathIgnorePatterns: ['/node_modules/', 'property'],
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
