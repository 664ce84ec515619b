/** `npm test`: sets up what is missing, then lint, types, unit tests and checks, and the browser tests on the built application. */
import { existsSync, mkdirSync, readFileSync } from 'node:fs';
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import {
  ROOT,
  checkNode,
  endChild,
  ensureBuilt,
  ensureDebianPackages,
  ensureNodeModules,
  migrate,
  startServer,
} from './project.mjs';
import { ensurePostgres, startTestCluster } from './postgres.mjs';
import { runScript, say } from './say.mjs';

const CHROMIUM = process.env.CHROMIUM ?? '/usr/bin/chromium';
const FONT = '/usr/share/fonts/truetype/liberation';
const totals = { passed: 0, failed: 0, skipped: 0 };

/** A step that either succeeds or counts as one failure. */
function step(title, command, args) {
  say(`\n== ${title}`);
  const { status } = spawnSync(command, args, { cwd: ROOT, stdio: ['ignore', 2, 2] });
  if (status !== 0) totals.failed += 1;
}

function jest(databaseUrl, report) {
  say('\n== Unit tests and checks');
  const args = [
    '--experimental-vm-modules',
    '--disable-warning=ExperimentalWarning',
    'node_modules/jest/bin/jest.js',
    '--json',
    `--outputFile=${report}`,
    '--silent',
    '--maxWorkers=100%',
  ];
  const { status } = spawnSync(process.execPath, args, {
    cwd: ROOT,
    stdio: ['ignore', 'ignore', 2],
    env: { ...process.env, TEST_DATABASE_URL: databaseUrl },
  });
  if (!existsSync(report)) {
    totals.failed += 1;
    return;
  }
  const { numPassedTests, numFailedTests, numRuntimeErrorTestSuites, numPendingTests, numTodoTests } =
    JSON.parse(readFileSync(report, 'utf8'));
  totals.passed += numPassedTests;
  totals.failed += numFailedTests + numRuntimeErrorTestSuites;
  totals.skipped += numPendingTests + numTodoTests;
  if (status !== 0 && numFailedTests + numRuntimeErrorTestSuites === 0) totals.failed += 1;
}

async function playwright(databaseUrl, report) {
  say('\n== Browser tests');
  const environment = { DATABASE_URL: databaseUrl, PORT: '0', KADREL_DEMO: '1', KADREL_RATE: '1000000' };
  migrate(environment);
  const { child, address } = await startServer(environment);
  const args = ['node_modules/@playwright/test/cli.js', 'test', '--config', 'e2e/playwright.config.ts'];
  const { status } = spawnSync(process.execPath, args, {
    cwd: ROOT,
    stdio: ['ignore', 2, 2],
    env: { ...process.env, BASE_URL: address, CHROMIUM, PLAYWRIGHT_JSON: report },
  });
  await endChild(child);
  if (!existsSync(report)) {
    totals.failed += 1;
    return;
  }
  const { expected, unexpected, flaky, skipped } = JSON.parse(readFileSync(report, 'utf8')).stats;
  totals.passed += expected;
  totals.failed += unexpected + flaky;
  totals.skipped += skipped;
  if (status !== 0 && unexpected + flaky === 0) totals.failed += 1;
}

await runScript(async () => {
  checkNode();
  ensurePostgres();
  ensureDebianPackages({ chromium: () => existsSync(CHROMIUM), 'fonts-liberation': () => existsSync(FONT) });
  ensureNodeModules();
  const reports = join(ROOT, '.cache', `reports-${process.pid}`);
  mkdirSync(reports, { recursive: true });
  step('Lint', 'npm', ['run', '--silent', 'lint']);
  step('Types', process.execPath, ['scripts/types.mjs']);
  step('Measure', 'npm', ['run', '-s', 'measure']);
  ensureBuilt();
  const cluster = await startTestCluster();
  try {
    jest(cluster.database('kadrel_unit'), join(reports, 'jest.json'));
    await playwright(cluster.database('kadrel_e2e'), join(reports, 'playwright.json'));
  } finally {
    await cluster.stop();
  }
  process.stdout.write(
    `\n${totals.passed} passed, ${totals.failed} failed${totals.skipped > 0 ? `, ${totals.skipped} skipped` : ''}\n`,
  );
  process.exitCode = totals.failed === 0 && totals.passed > 0 ? 0 : 1;
});
