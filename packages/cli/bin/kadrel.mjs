#!/usr/bin/env node
// Builds the runner when its sources are newer than what was built, and starts it.
import { existsSync, readdirSync, statSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const folder = dirname(dirname(fileURLToPath(import.meta.url)));
const built = join(folder, 'dist', 'limited.js');

function newest(path) {
  const entry = statSync(path);
  if (!entry.isDirectory()) return entry.mtimeMs;
  return Math.max(0, ...readdirSync(path).map((name) => newest(join(path, name))));
}

const sources = ['src', '../core/src', '../kernel/src', 'vite.config.ts'].map((path) => join(folder, path));
if (!existsSync(built) || Math.max(...sources.map(newest)) > statSync(built).mtimeMs) {
  const { build } = await import('vite');
  await build({ root: folder, configFile: join(folder, 'vite.config.ts'), logLevel: 'error' });
}
const { runLimited } = await import(built);
process.exitCode = await runLimited(process.argv.slice(2));
