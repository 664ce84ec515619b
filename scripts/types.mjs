/** Type check of every workspace. */
import { spawnSync } from 'node:child_process';
import { ROOT } from './project.mjs';

const FOLDERS = [
  'packages/core',
  'packages/kernel',
  'packages/cli',
  'apps/server',
  'apps/web',
  'checks',
  'e2e',
];
let failed = false;
for (const folder of FOLDERS) {
  const { status } = spawnSync(process.execPath, ['node_modules/typescript/bin/tsc', '-p', folder], {
    cwd: ROOT,
    stdio: 'inherit',
  });
  if (status !== 0) failed = true;
}
process.exitCode = failed ? 1 : 0;
