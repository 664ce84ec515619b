/** `npm run torture -- booleans [COUNT] [SEED] [CLASS,…]`, `-- icons [OF EACH SET] [EVERY]` or `-- edits [COUNT] [SEED]`: long trials, seeds printed. */
import { join } from 'node:path';
import { spawnSync } from 'node:child_process';
import { ROOT, checkNode, ensureNodeModules } from './project.mjs';
import { runScript } from './say.mjs';

await runScript(async () => {
  checkNode();
  ensureNodeModules();
  const { build } = await import('vite');
  await build({
    root: join(ROOT, 'checks'),
    configFile: join(ROOT, 'checks/vite.config.ts'),
    logLevel: 'error',
  });
  const { status } = spawnSync(process.execPath, ['checks/dist/torture.js', ...process.argv.slice(2)], {
    cwd: ROOT,
    stdio: 'inherit',
  });
  if (status !== 0) process.exitCode = 1;
});
