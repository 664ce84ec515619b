/** Where things are in the project, and running commands in it. */
import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { dirname, join, relative } from 'node:path';
import { fileURLToPath } from 'node:url';
import { SetupError, ToldError, say } from './say.mjs';

export const ROOT = dirname(dirname(fileURLToPath(import.meta.url)));
/** What lasts from one start to the next. */
export const DATA = process.env.KADREL_DATA ?? join(ROOT, '.data');
const MIN_NODE = [20, 19];

export function checkNode() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < MIN_NODE[0] || (major === MIN_NODE[0] && minor < MIN_NODE[1]))
    throw new SetupError(
      `Kadrel needs Node.js ${MIN_NODE.join('.')} or newer; this is ${process.versions.node}.`,
    );
}

/** Runs a command to its end; what it prints goes to standard error. Throws a SetupError when it fails. */
export function run(command, args, options = {}) {
  const { status, error } = spawnSync(command, args, { cwd: ROOT, stdio: ['ignore', 2, 2], ...options });
  if (error || status !== 0)
    throw new SetupError(
      `${[command, ...args].join(' ')} failed${error ? `: ${error.message}` : ` with exit code ${status}`}.`,
    );
}

export const isRoot = () => process.getuid?.() === 0;

/** Installs Debian packages whose proof is missing: `{ package: () => boolean }`. */
export function ensureDebianPackages(wanted) {
  const missing = Object.entries(wanted)
    .filter(([, isThere]) => !isThere())
    .map(([name]) => name);
  if (missing.length === 0) return;
  const line = `apt-get install -y --no-install-recommends ${missing.join(' ')}`;
  if (!isRoot())
    throw new SetupError(
      `Kadrel needs Debian packages that only root may install. Please run:\n  sudo ${line}\nand start again.`,
    );
  say(`Installing ${missing.join(', ')} from Debian's packages…`);
  const environment = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  run('apt-get', ['update', '-qq'], { env: environment });
  run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', ...missing], { env: environment });
}

/** `npm ci` when the lock file is not the one that was installed last. */
export function ensureNodeModules() {
  const lock = createHash('sha256')
    .update(readFileSync(join(ROOT, 'package-lock.json')))
    .digest('hex');
  const stamp = join(ROOT, 'node_modules', '.kadrel-lock');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return;
  say('Installing npm packages…');
  run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error']);
  writeFileSync(stamp, lock);
}

const SOURCES = ['packages', 'apps', 'package-lock.json', 'scripts/build.mjs'];
const SKIPPED = new Set(['node_modules', 'dist', '.data']);

function* sourceFiles(path) {
  if (!statSync(path).isDirectory()) yield path;
  else
    for (const name of readdirSync(path).sort())
      if (!SKIPPED.has(name) && !/\.test\.tsx?$/.test(name)) yield* sourceFiles(join(path, name));
}

/** Builds when the sources are not the ones that were built last. */
export function ensureBuilt() {
  const hash = createHash('sha256');
  for (const source of SOURCES)
    for (const file of sourceFiles(join(ROOT, source)))
      hash.update(relative(ROOT, file)).update(readFileSync(file));
  const digest = hash.digest('hex');
  const stamp = join(ROOT, '.cache', 'built');
  const built = ['apps/server/dist/main.js', 'apps/web/dist/index.html'].every((file) =>
    existsSync(join(ROOT, file)),
  );
  if (built && existsSync(stamp) && readFileSync(stamp, 'utf8') === digest) return;
  say('Building…');
  run(process.execPath, ['scripts/build.mjs']);
  mkdirSync(dirname(stamp), { recursive: true });
  writeFileSync(stamp, digest);
}

export const WEB_DIST = join(ROOT, 'apps/web/dist');
export const SERVER = join(ROOT, 'apps/server/dist/main.js');

export function migrate(environment) {
  const { status } = spawnSync(process.execPath, ['--enable-source-maps', SERVER, '--migrate'], {
    cwd: ROOT,
    stdio: ['ignore', 2, 2],
    env: { ...process.env, ...environment },
  });
  if (status !== 0) throw new ToldError(`The tables could not be brought up to date: exit code ${status}.`);
}

/** Starts the server and waits until it listens. Returns the process and its address. @param onSpawn is given the process at once */
export async function startServer(environment, onSpawn = () => undefined) {
  const child = spawn(process.execPath, ['--max-semi-space-size=32', '--enable-source-maps', SERVER], {
    cwd: ROOT,
    env: { ...process.env, KADREL_WEB: WEB_DIST, ...environment },
    stdio: ['ignore', 'pipe', 'inherit'],
    detached: true,
  });
  onSpawn(child);
  const address = await new Promise((resolve, reject) => {
    child.stdout.setEncoding('utf8').on('data', (text) => {
      const found = /listening (\S+)/.exec(text);
      if (found) resolve(found[1]);
    });
    child.once('exit', (code) => reject(new ToldError(`The server ended at once, with exit code ${code}.`)));
  });
  return { child, address };
}

/** Asks a child to end and waits for it. */
export function endChild(child, signal = 'SIGTERM') {
  if (child.exitCode !== null || child.signalCode !== null) return Promise.resolve();
  return new Promise((resolve) => {
    child.once('exit', () => resolve());
    child.kill(signal);
  });
}

export function freePort() {
  return new Promise((resolve, reject) => {
    const probe = createServer().once('error', reject);
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address();
      probe.close(() => resolve(port));
    });
  });
}
