/** `npm test`: sets up what is missing, then lint, types, unit tests and checks, and the browser tests on the built application. */
import { existsSync, mkdirSync, readFileSync } from 'node:fs';
import { spawn, spawnSync } from 'node:child_process';
import { join, relative } from 'node:path';
import { stripVTControlCharacters } from 'node:util';
import {
  ROOT,
  checkNode,
  endChild,
  ensureBuilt,
  ensureNodeModules,
  migrate,
  startServer,
} from './project.mjs';
import { ensureChromium } from './chromium.mjs';
import { ensurePostgres, startTestCluster } from './postgres.mjs';
import { runScript, say } from './say.mjs';

const MAX_UNIT_MS = 60 * 60_000;
const totals = { passed: 0, failed: 0, skipped: 0 };
/** What failed, one line each, repeated at the end, where whoever reads only the tail of a log finds it. */
const failures = [];

function fail(what) {
  totals.failed += 1;
  failures.push(what);
}

/** One after another; what each says is printed when it has ended, and each either succeeds or counts as one failure. */
async function inTurn(steps) {
  for (const one of Object.entries(steps)) await step(one);
}

async function step([title, [command, ...args]]) {
  const child = spawn(command, args, { cwd: ROOT, stdio: ['ignore', 'pipe', 'pipe'] });
  const parts = [];
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (part) => parts.push(part));
  const code = await new Promise((resolve) => child.on('error', resolve).on('close', resolve));
  say(`\n== ${title}\n${Buffer.concat(parts)}`);
  if (code !== 0) fail(title);
}

/** @param projects of Jest's configuration @param workers as Jest has it */
async function jest(title, { projects, workers, databaseUrl, report }) {
  say(`\n== ${title}`);
  const args = [
    '--experimental-vm-modules',
    '--disable-warning=ExperimentalWarning',
    'node_modules/jest/bin/jest.js',
    '--json',
    `--outputFile=${report}`,
    '--silent',
    `--maxWorkers=${workers}`,
    '--selectProjects',
    ...projects,
  ];
  const child = spawn(process.execPath, args, {
    cwd: ROOT,
    stdio: ['ignore', 'ignore', 2],
    env: { ...process.env, TEST_DATABASE_URL: databaseUrl },
    // A guard against a hang: the runner of what computes has none of its own.
    timeout: MAX_UNIT_MS,
  });
  const status = await new Promise((resolve) => child.on('error', resolve).on('close', resolve));
  if (!existsSync(report)) {
    fail(`${title}: no report`);
    return;
  }
  const { numPassedTests, numPendingTests, numTodoTests, testResults } = JSON.parse(
    readFileSync(report, 'utf8'),
  );
  totals.passed += numPassedTests;
  totals.skipped += numPendingTests + numTodoTests;
  const failed = testResults.flatMap(failedInSuite);
  failed.forEach(fail);
  if (status !== 0 && failed.length === 0) fail(`${title}: the runner`);
}

/** The tests of a suite that failed, or the suite where it could not be run. */
function failedInSuite({ name, status, message, assertionResults }) {
  const failed = assertionResults.filter((test) => test.status === 'failed');
  const path = relative(ROOT, name);
  if (status === 'failed' && failed.length === 0) return [`${path}: ${beginning(message)}`];
  return failed.map((test) => `${path} › ${test.fullName}: ${beginning(test.failureMessages[0] ?? '')}`);
}

const beginning = (message) => stripVTControlCharacters(message).replace(/\s+/g, ' ').slice(0, 400);

/** The browser tests of a suite, and of the suites in it, that failed or passed only when tried again. */
function failedInBrowser({ file, specs = [], suites = [] }) {
  const failed = specs.filter(({ ok, tests }) => !ok || tests.some(({ status }) => status === 'flaky'));
  return [
    ...failed.map(({ title, tests }) => `${file} › ${title}: ${beginning(firstError(tests))}`),
    ...suites.flatMap(failedInBrowser),
  ];
}

const firstError = (tests) =>
  tests.flatMap(({ results }) => results.flatMap(({ errors }) => errors)).at(0)?.message ?? '';

async function playwright(databaseUrl, report) {
  say('\n== Browser tests');
  const environment = { DATABASE_URL: databaseUrl, PORT: '0', KADREL_DEMO: '1', KADREL_RATE: '1000000' };
  migrate(environment);
  const { child, address } = await startServer(environment);
  const config = ['--config', 'e2e/playwright.config.ts'];
  // Those are left to `npm run torture -- browser`.
  const args = ['node_modules/@playwright/test/cli.js', 'test', ...config, '--grep-invert', '@long'];
  const { status } = spawnSync(process.execPath, args, {
    cwd: ROOT,
    stdio: ['ignore', 2, 2],
    env: { ...process.env, BASE_URL: address, PLAYWRIGHT_JSON: report },
  });
  await endChild(child);
  if (!existsSync(report)) {
    fail('Browser tests: no report');
    return;
  }
  const { stats, suites } = JSON.parse(readFileSync(report, 'utf8'));
  totals.passed += stats.expected;
  totals.skipped += stats.skipped;
  const failed = suites.flatMap(failedInBrowser);
  failed.forEach(fail);
  if (status !== 0 && failed.length === 0) fail('Browser tests: the runner');
}

await runScript(async () => {
  checkNode();
  ensurePostgres();
  ensureChromium();
  ensureNodeModules();
  const reports = join(ROOT, '.cache', `reports-${process.pid}`);
  mkdirSync(reports, { recursive: true });
  const cluster = await startTestCluster();
  try {
    const databaseUrl = cluster.database('kadrel_unit');
    // The lint takes about as long as the others together.
    await Promise.all([
      inTurn({ Lint: ['npm', 'run', '--silent', 'eslint'] }),
      inTurn({
        'Formatting, arrows and what nothing uses': ['npm', 'run', '--silent', 'form'],
        Types: [process.execPath, 'scripts/types.mjs'],
        Measure: ['npm', 'run', '-s', 'measure'],
      })
        .then(ensureBuilt)
        .then(() =>
          jest('Unit tests of the page', {
            projects: ['web'],
            workers: 1,
            databaseUrl,
            report: join(reports, 'page.json'),
          }),
        ),
    ]);
    await jest('Unit tests and checks', {
      projects: ['server', 'core, kernel, headless, checks'],
      workers: '100%',
      databaseUrl,
      report: join(reports, 'jest.json'),
    });
    await playwright(cluster.database('kadrel_e2e'), join(reports, 'playwright.json'));
  } finally {
    await cluster.stop();
  }
  for (const what of failures) process.stdout.write(`\nFailed: ${what}`);
  process.stdout.write(
    `\n${totals.passed} passed, ${totals.failed} failed${totals.skipped > 0 ? `, ${totals.skipped} skipped` : ''}\n`,
  );
  process.exitCode = totals.failed === 0 && totals.passed > 0 ? 0 : 1;
});
