// Packages that ship as ES modules only and must be transformed for Jest.
const esm = ['d3-[a-z-]+', 'internmap', 'uuid', 'idb', 'temporal-polyfill', 'temporal-utils'];
/** @type {import('jest').Config} */
module.exports = {
  testMatch: ['<rootDir>/{app,core,client,ui,server,demo}/**/*.test.ts?(x)'],
  testEnvironment: 'node',
  // A machine that is busy with other things is no fault of what is tested.
  testTimeout: 60_000,
  transform: {
    '^.+\\.(t|j|mj)sx?$': [
      '@swc/jest',
      { jsc: { parser: { syntax: 'typescript', tsx: true }, target: 'es2022', transform: { react: { runtime: 'automatic' } } }, module: { type: 'commonjs' } },
    ],
  },
  transformIgnorePatterns: [`/node_modules/(?!(${esm.join('|')})/)`],
  moduleNameMapper: { '^@/(.*)$': '<rootDir>/$1' },
  modulePathIgnorePatterns: ['<rootDir>/.next/', '<rootDir>/.data/'],
};
