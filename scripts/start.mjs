/** `npm start`: everything from a fresh clone to a running demo. */
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import {
  DATA,
  SERVER,
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
/** Where a start that runs can be reached. */
const RUN_FILE = join(DATA, 'run.json');
/** The process of the server, from the moment that it is there. */
const SERVER_FILE = join(DATA, 'server.pid');

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

/** A start that was killed leaves its server running: it would hold the port. */
async function endLeftServer() {
  if (!existsSync(SERVER_FILE)) return;
  const pid = Number(readFileSync(SERVER_FILE, 'utf8'));
  rmSync(SERVER_FILE);
  for (let tries = 0; isServer(pid) && tries < LEFT_TRIES; tries++) {
    process.kill(pid, tries < LEFT_TRIES / 2 ? 'SIGTERM' : 'SIGKILL');
    await new Promise((resolve) => setTimeout(resolve, LEFT_WAIT_MS));
  }
}
const LEFT_TRIES = 40;
const LEFT_WAIT_MS = 250;

/** Whether a process is there and is a server of this project: numbers of processes are given again. */
function isServer(pid) {
  const line = `/proc/${pid}/cmdline`;
  return existsSync(line) && readFileSync(line, 'utf8').split('\0').includes(SERVER);
}

const forget = () => {
  for (const file of [RUN_FILE, SERVER_FILE]) rmSync(file, { force: true });
};

await runScript(async () => {
  checkNode();
  const running = await alreadyRunning();
  if (running) {
    process.stdout.write(`Kadrel is running at ${running} already\n`);
    return;
  }
  await endLeftServer();
  const own = !process.env.DATABASE_URL;
  if (own) ensurePostgres();
  ensureNodeModules();
  ensureBuilt();
  mkdirSync(DATA, { recursive: true });
  const cluster = own ? await startCluster() : undefined;
  cluster?.watch(RESTARTS);
  let server;
  let ending = false;
  let serverChild;
  const end = async (signal) => {
    if (ending) {
      if (signal) endAtOnce();
      return;
    }
    ending = true;
    // The server first, so that nothing is being saved when the database goes.
    if (server) await endChild(server.child);
    await cluster?.stop();
    forget();
    process.exit();
  };
  /** The second Ctrl-C. What was acknowledged is safe all the same. */
  const endAtOnce = () => {
    serverChild?.kill('SIGKILL');
    cluster?.stopAtOnce();
    forget();
    process.exit(130);
  };
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void end(signal));
  const environment = {
    DATABASE_URL: cluster?.url ?? process.env.DATABASE_URL,
    PORT: process.env.PORT ?? DEFAULT_PORT,
    KADREL_DEMO: process.env.KADREL_DEMO ?? '1',
  };
  try {
    migrate(environment);
    server = await startServer(environment, (child) => {
      serverChild = child;
      writeFileSync(SERVER_FILE, String(child.pid));
    });
  } catch (error) {
    await cluster?.stop();
    forget();
    throw error;
  }
  server.child.once('exit', (code) => {
    if (!ending) process.exitCode = code || 1;
    void end();
  });
  writeFileSync(RUN_FILE, JSON.stringify({ pid: process.pid, address: server.address }));
  process.stdout.write(`Kadrel is running at ${server.address}\n`);
});
