/**
 * `npm run torture -- WHAT …`: long trials, seeds printed. Of geometry and edits `booleans [COUNT] [SEED] [CLASS,…]`,
 * `recipes [COUNT] [SEED]`, `icons [OF EACH SET] [EVERY]` and `edits [COUNT] [SEED]`, and with `checks [PATH …]` all random trials
 * of the tests; of saving `kills [COUNT] [SEED]`, `starts [COUNT] [SEED]`, `disk`, and `pages [COUNT] [SEED]`; of the server
 * `held [ROUNDS]`; of the workshop `gestures [SECONDS] [SEED]`, and `browser [FILE …]`: all browser tests, the long ones as well.
 */
import { join } from 'node:path';
import { spawnSync } from 'node:child_process';
import { ensureChromium } from './chromium.mjs';
import { ROOT, checkNode, ensureNodeModules } from './project.mjs';
import { runScript } from './say.mjs';
import { withDemo } from './serving.mjs';
import { SAVING, tortureSaving } from './tortureSaving.mjs';

/** Where tests with random trials stand. */
const RANDOM_CHECKS = ['packages/core', 'packages/kernel', 'checks'];

/** The tests, with all of their random trials; in `npm test` each makes a tenth of them. */
function tortureChecks(paths) {
  const jest = ['--experimental-vm-modules', 'node_modules/jest/bin/jest.js', '--maxWorkers=100%'];
  const { status } = spawnSync(process.execPath, [...jest, ...(paths.length > 0 ? paths : RANDOM_CHECKS)], {
    cwd: ROOT,
    stdio: 'inherit',
    env: { ...process.env, KADREL_TRIALS: 'all' },
  });
  if (status !== 0) process.exitCode = 1;
}

/** Random clicks, drags, keys and numbers in a browser: nothing that was typed may be lost. */
const tortureGestures = ([seconds = '600', seed = '1']) =>
  inBrowser(['e2e/gestures.spec.ts'], { GESTURES: seconds, SEED: seed });

/** Browser tests, those that are tagged `@long` among them. */
async function inBrowser(files, environment = {}) {
  ensureChromium();
  const test = ['node_modules/@playwright/test/cli.js', 'test', '--config', 'e2e/playwright.config.ts'];
  const { status } = await withDemo('kadrel_browser', (address) =>
    spawnSync(process.execPath, [...test, ...files], {
      cwd: ROOT,
      stdio: 'inherit',
      env: { ...process.env, BASE_URL: address, KADREL_TRIALS: 'all', ...environment },
    }),
  );
  if (status !== 0) process.exitCode = 1;
}

await runScript(async () => {
  checkNode();
  ensureNodeModules();
  if (process.argv[2] === 'checks') return tortureChecks(process.argv.slice(3));
  if (process.argv[2] === 'gestures') return tortureGestures(process.argv.slice(3));
  if (process.argv[2] === 'browser') return inBrowser(process.argv.slice(3));
  const { build } = await import('vite');
  await build({
    root: join(ROOT, 'checks'),
    configFile: join(ROOT, 'checks/vite.config.ts'),
    logLevel: 'error',
  });
  const [what, ...rest] = process.argv.slice(2);
  if (what in SAVING) return tortureSaving(what, rest);
  const { status } = spawnSync(process.execPath, ['checks/dist/torture.js', ...process.argv.slice(2)], {
    cwd: ROOT,
    stdio: 'inherit',
  });
  if (status !== 0) process.exitCode = 1;
});
