/**
 * `npm run torture -- WHAT …`: long trials, seeds printed. Of geometry and edits `booleans [COUNT] [SEED] [CLASS,…]`,
 * `icons [OF EACH SET] [EVERY]` and `edits [COUNT] [SEED]`; of saving `kills [COUNT] [SEED]`, `starts [COUNT] [SEED]`, `disk`, and
 * `pages [COUNT] [SEED]`.
 */
import { join } from 'node:path';
import { spawnSync } from 'node:child_process';
import { ROOT, checkNode, ensureNodeModules } from './project.mjs';
import { runScript } from './say.mjs';
import { SAVING, tortureSaving } from './tortureSaving.mjs';

await runScript(async () => {
  checkNode();
  ensureNodeModules();
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
