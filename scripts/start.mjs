/** `npm start`: everything from a fresh clone to a running demo. */
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import {
  DATA,
  checkNode,
  endChild,
  ensureBuilt,
  ensureNodeModules,
  migrate,
  startServer,
} from './project.mjs';
import { ensurePostgres, startCluster } from './postgres.mjs';
import { runScript } from './say.mjs';

const DEFAULT_PORT = '4180';
/** A database that ended so often will go on doing so. */
const RESTARTS = 20;
const RUN_FILE = join(DATA, 'run.json');

/** The address of a start that is still running in this folder, or undefined. */
async function alreadyRunning() {
  if (!existsSync(RUN_FILE)) return undefined;
  const { address } = JSON.parse(readFileSync(RUN_FILE, 'utf8'));
  try {
    const answer = await fetch(`${address}/api/health`, { signal: AbortSignal.timeout(2000) });
    return answer.ok ? address : undefined;
  } catch {
    // Nobody answers: the file was left behind by a start that was killed.
    return undefined;
  }
}

await runScript(async () => {
  checkNode();
  const running = await alreadyRunning();
  if (running) {
    process.stdout.write(`Kadrel is running at ${running} already\n`);
    return;
  }
  const own = !process.env.DATABASE_URL;
  if (own) ensurePostgres();
  ensureNodeModules();
  ensureBuilt();
  mkdirSync(DATA, { recursive: true });
  const cluster = own ? await startCluster() : undefined;
  cluster?.watch(RESTARTS);
  let server;
  let ending = false;
  const end = async () => {
    if (ending) return;
    ending = true;
    // The server first, so that nothing is being saved when the database goes.
    if (server) await endChild(server.child);
    await cluster?.stop();
    rmSync(RUN_FILE, { force: true });
    process.exit();
  };
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void end());
  const environment = {
    DATABASE_URL: cluster?.url ?? process.env.DATABASE_URL,
    PORT: process.env.PORT ?? DEFAULT_PORT,
    KADREL_DEMO: process.env.KADREL_DEMO ?? '1',
  };
  try {
    migrate(environment);
    server = await startServer(environment);
  } catch (error) {
    await cluster?.stop();
    throw error;
  }
  server.child.once('exit', (code) => {
    if (!ending) process.exitCode = code || 1;
    void end();
  });
  writeFileSync(RUN_FILE, JSON.stringify({ pid: process.pid, address: server.address }));
  process.stdout.write(`Kadrel is running at ${server.address}\n`);
});
