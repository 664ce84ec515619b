import { fileURLToPath } from 'node:url';

const path = (to) => fileURLToPath(new URL(to, import.meta.url));

const swc = (decorators, jsx) => ({
  '^.+\\.tsx?$': [
    '@swc/jest',
    {
      jsc: {
        target: 'es2022',
        keepClassNames: true,
        experimental: { keepImportAttributes: true },
        parser: { syntax: 'typescript', tsx: jsx, decorators },
        transform: {
          legacyDecorator: decorators,
          decoratorMetadata: decorators,
          ...(jsx ? { react: { runtime: 'automatic' } } : {}),
        },
      },
      module: { type: 'es6' },
      sourceMaps: 'inline',
    },
  ],
});

/** Every suite in a context of its own: with decorators, or with a page. */
const isolated = (displayName, folder, { decorators = false, jsx = false, environment = 'node' }) => ({
  displayName,
  rootDir: `<rootDir>/${folder}`,
  testEnvironment: environment,
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  transform: swc(decorators, jsx),
  transformIgnorePatterns: ['/node_modules/(?!replicad-opencascadejs/)'],
  testMatch: ['<rootDir>/**/*.test.{ts,tsx}'],
});

/**
 * What computes runs as Node itself runs it, suite after suite in two threads: modules are read and the kernel is started once for
 * each of them, and numeric code is as quick as in the product. Suites share what modules hold.
 */
const together = (displayName, ...folders) => ({
  displayName,
  runner: path('scripts/jest-runner.mjs'),
  setupFiles: [path('scripts/jest-typescript.mjs')],
  transform: {},
  testMatch: folders.map((folder) => `<rootDir>/${folder}/**/*.test.ts`),
  testPathIgnorePatterns: ['/dist/', '/node_modules/'],
});

export default {
  testTimeout: 60_000,
  globalSetup: '<rootDir>/scripts/jest-setup.mjs',
  globalTeardown: '<rootDir>/scripts/jest-teardown.mjs',
  projects: [
    together('core, kernel, headless, checks', 'packages/core', 'packages/kernel', 'packages/cli', 'checks'),
    isolated('server', 'apps/server', { decorators: true }),
    isolated('web', 'apps/web', { jsx: true, environment: 'jsdom' }),
  ],
};
