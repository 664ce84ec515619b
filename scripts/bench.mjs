/**
 * `npm run bench`: speed as ratios in one run; the last lines are taken in Chromium on the built application.
 * `-- page` takes these alone.
 */
import { join } from 'node:path';
import { spawnSync } from 'node:child_process';
import {
  ROOT,
  checkNode,
  endChild,
  ensureBuilt,
  ensureNodeModules,
  migrate,
  startServer,
} from './project.mjs';
import { benchPage } from './benchPage.mjs';
import { benchSaving } from './benchSaving.mjs';
import { ensureChromium } from './chromium.mjs';
import { ensurePostgres, startTestCluster } from './postgres.mjs';
import { runScript } from './say.mjs';

/** What computes, in a process of its own. */
async function benchCore() {
  const { build } = await import('vite');
  await build({
    root: join(ROOT, 'checks'),
    configFile: join(ROOT, 'checks/vite.config.ts'),
    logLevel: 'error',
  });
  const { status } = spawnSync(process.execPath, ['checks/dist/speed.js'], { cwd: ROOT, stdio: 'inherit' });
  if (status !== 0) process.exitCode = 1;
}

await runScript(async () => {
  checkNode();
  ensurePostgres();
  ensureChromium();
  ensureNodeModules();
  ensureBuilt();
  const isWhole = process.argv[2] !== 'page';
  if (isWhole) await benchCore();
  const line = (what, ratio, aim, detail) =>
    process.stdout.write(
      `${what.padEnd(66)} ${ratio.toFixed(2).padStart(6)}   aim ${aim.padEnd(10)} ${detail}\n`,
    );
  if (isWhole) await benchSaving(line);
  const cluster = await startTestCluster();
  try {
    const environment = {
      DATABASE_URL: cluster.database('kadrel_bench'),
      PORT: '0',
      KADREL_DEMO: '1',
      KADREL_RATE: '1000000',
    };
    migrate(environment);
    const { child, address } = await startServer(environment);
    await benchPage(address, line);
    await endChild(child);
  } finally {
    await cluster.stop();
  }
});
