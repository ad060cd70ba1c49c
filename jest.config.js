import { ENTRIES, FOLDER, SOURCES } from './testing/core-bundle.mjs';

/** Tests of every package in one run. Sources are turned to CommonJS; contract is taken from its sources, core in a few files that are made of them. */
const transform = {
  '^.+\\.(t|j|mj)sx?$': [
    '@swc/jest',
    {
      jsc: {
        parser: { syntax: 'typescript', tsx: true, decorators: true },
        transform: { legacyDecorator: true, decoratorMetadata: true, useDefineForClassFields: false, react: { runtime: 'automatic' } },
        target: 'es2023',
      },
      module: { type: 'commonjs', ignoreDynamic: true },
    },
  ],
};
const base = {
  testEnvironment: 'node',
  // A page without a browser takes what is made for Node all the same.
  testEnvironmentOptions: { customExportConditions: ['node', 'node-addons'] },
  transform,
  transformIgnorePatterns: [
    '/node_modules/(?!(@cantoo|numfmt|saxes|xmlchars|fast-png|iobuffer|fflate|@noble|n2words|intl-messageformat|@formatjs|altcha-lib|marked)/)',
  ],
  moduleNameMapper: {
    '^@mailbag/folder/(layout|lock)$': '<rootDir>/packages/folder/src/$1.ts',
    '^@mailbag/host$': '<rootDir>/packages/host/src/index.ts',
    '^@mailbag/folder$': '<rootDir>/packages/folder/src/index.ts',
    '^@mailbag/contract$': '<rootDir>/packages/contract/src/index.ts',
    // Its package names a CommonJS file that it does not ship.
    '^numfmt$': '<rootDir>/node_modules/numfmt/dist/index.js',
    '^(\\.{1,2}/.*)\\.js$': '$1',
  },
};
/** Core as its own tests have it: its sources; and as all others have it: in a few files. */
const coreOf = (displayName) =>
  Object.fromEntries(
    Object.entries(ENTRIES).map(([name, file]) => [
      `^@mailbag/core${name === 'core' ? '' : `/${name}`}$`,
      displayName === 'core' ? `<rootDir>/${SOURCES}/${file}` : `<rootDir>/${FOLDER}/${name}.cjs`,
    ]),
  );
const project = (displayName, folder, more = {}) => ({
  ...base,
  moduleNameMapper: { ...coreOf(displayName), ...base.moduleNameMapper },
  displayName,
  rootDir: import.meta.dirname,
  roots: [`<rootDir>/${folder}`],
  testMatch: ['**/*.test.ts', '**/*.test.tsx'],
  testPathIgnorePatterns: ['/node_modules/', '/dist/'],
  ...more,
});

export default {
  projects: [
    project('core', 'packages/core/src'),
    project('contract', 'packages/contract/src'),
    project('host', 'packages/host/src'),
    project('folder', 'packages/folder/src'),
    project('cli', 'apps/cli/src'),
    project('server', 'apps/server/src'),
    project('web', 'apps/web/src'),
    project('pages', 'apps/pages/src'),
    project('standins', 'standins/src'),
    project('demo', 'demo/src'),
    project('attack', 'attack'),
    project('e2e', 'e2e'),
  ],
  globalSetup: './testing/core-bundle.mjs',
  // Far above what any test takes, so that a machine that is busy with something else fails none.
  testTimeout: 300_000,
  // Most of the time a test waits for a server of its own, so two go together on two cores.
  maxWorkers: 2,
  passWithNoTests: true,
};
