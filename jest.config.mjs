import { fileURLToPath } from 'node:url';

const TRANSFORM = fileURLToPath(new URL('scripts/jest-transform.mjs', import.meta.url));

const swc = (decorators, jsx) => ({
  '^.+\\.tsx?$': [
    TRANSFORM,
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

const project = (
  displayName,
  folder,
  { decorators = false, jsx = false, environment = 'node', ...extra } = {},
) => ({
  displayName,
  rootDir: `<rootDir>/${folder}`,
  testEnvironment: environment,
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  transform: { ...swc(decorators, jsx), 'replicad_single\\.js$': TRANSFORM },
  transformIgnorePatterns: ['/node_modules/(?!replicad-opencascadejs/)'],
  testMatch: ['<rootDir>/**/*.test.{ts,tsx}'],
  ...extra,
});

export default {
  testTimeout: 60_000,
  globalSetup: '<rootDir>/scripts/jest-setup.mjs',
  globalTeardown: '<rootDir>/scripts/jest-teardown.mjs',
  projects: [
    project('core', 'packages/core'),
    project('kernel', 'packages/kernel'),
    project('cli', 'packages/cli'),
    project('checks', 'checks'),
    project('server', 'apps/server', { decorators: true }),
    project('web', 'apps/web', { jsx: true, environment: 'jsdom' }),
  ],
};
