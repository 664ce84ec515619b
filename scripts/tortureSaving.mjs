/**
 * Long trials of saving: servers and databases are killed while people save, starts are killed, the disk runs full, and pages save to
 * one project side by side. Seeds are printed; every trial ends with a row of a table.
 */
import { spawn, spawnSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { binaryOf, ensurePostgres, startTestCluster } from './postgres.mjs';
import { ROOT, endChild, ensureBuilt, isRoot, migrate, startServer } from './project.mjs';
import { randomOf } from './random.mjs';
import { SetupError, say } from './say.mjs';

const CLIENTS = 8;
const RETRY_MS = 100;
const sleep = (ms) => new Promise((resolve) => setTimeout(resolve, ms));

const environmentOf = (url) => ({
  DATABASE_URL: url,
  PORT: '0',
  KADREL_DEMO: '1',
  KADREL_RATE: '100000000',
  KADREL_LOG: 'silent',
});

const row = (what, tried, lost, more = '') => say(`| ${what} | ${tried} | ${lost} | ${more} |`);

/** A server and its database, which can be killed. */
async function victim(options) {
  const cluster = await startTestCluster({ durable: true, ...options });
  cluster.database('kadrel');
  migrate(environmentOf(cluster.urlOf('kadrel')));
  const start = () => startServer(environmentOf(cluster.urlOf('kadrel')));
  let server = await start();
  return {
    address: () => server.address,
    async killServer() {
      server.child.kill('SIGKILL');
      server = await start();
    },
    async killDatabase() {
      await cluster.crash();
      await endChild(server.child, 'SIGKILL');
      server = await start();
    },
    async stop() {
      await endChild(server.child, 'SIGKILL');
      await cluster.stop();
    },
  };
}

/** Somebody with a project, who adds one variable after another and sends again what was not acknowledged. */
async function saver(address) {
  const call = async (method, path, cookie, body) => {
    const answer = await fetch(`${address()}/api${path}`, {
      method,
      headers: { 'Content-Type': 'application/json', ...(cookie ? { cookie } : {}) },
      body: body && JSON.stringify(body),
      signal: AbortSignal.timeout(10_000),
    });
    return { answer, json: await answer.json() };
  };
  const email = `${randomUUID()}@kadrel.example`;
  const { answer } = await call('POST', '/sign-up', '', {
    email,
    name: 'Ada',
    password: 'hive lantern oboe',
  });
  const cookie = answer.headers.getSetCookie()[0].split(';')[0];
  const { json: project } = await call('POST', '/projects', cookie, { name: 'Torture', scene: {} });
  const sent = [];
  let acknowledged = 0;
  let isEnding = false;
  const problems = [];

  async function saveOne() {
    const name = `n${sent.length}`;
    const edit = editOf([{ op: 'add', path: ['variables', name], value: `${sent.length} mm` }]);
    sent.push(edit.id);
    while (!isEnding) {
      try {
        const { answer: got, json } = await call('POST', `/projects/${project.id}/edits`, cookie, {
          base: acknowledged,
          edits: [edit],
        });
        if (got.status === 201) {
          acknowledged = json.revision;
          return;
        }
        if (got.status < 500) problems.push(`${got.status}: ${json.detail}`);
      } catch {
        // Killed in the middle: nobody knows whether it is stored, so that it is sent again.
      }
      await sleep(RETRY_MS);
    }
  }
  const running = (async () => {
    while (!isEnding) await saveOne();
  })();
  return {
    count: () => acknowledged,
    async end() {
      isEnding = true;
      await running;
    },
    /** What is wrong with what is stored. */
    async faults() {
      const { json: ledger } = await call('GET', `/projects/${project.id}/edits`, cookie);
      const { json: opened } = await call('GET', `/projects/${project.id}`, cookie);
      const ids = ledger.edits.map(({ id }) => id);
      const names = Object.keys(opened.document.variables);
      return [
        ...problems,
        ...(ids.length < acknowledged ? [`${acknowledged - ids.length} acknowledged edits are gone`] : []),
        ...(ids.some((id, i) => id !== sent[i]) ? ['edits are out of order, doubled or not ours'] : []),
        ...(opened.revision === ids.length ? [] : ['revision and ledger differ']),
        ...(names.length === ids.length ? [] : ['document and ledger differ']),
      ];
    },
  };
}

const editOf = (patches) => ({
  id: randomUUID(),
  kind: 'do',
  patches,
  inverses: [],
  line: { verb: 'variable', values: {}, title: 'A variable', author: 'Ada', time: Date.now() },
});

/** Servers and databases are killed while people save. */
export async function kills([count = '100', seed = '1']) {
  const random = randomOf(Number(seed));
  const house = await victim();
  const savers = await Promise.all(Array.from({ length: CLIENTS }, () => saver(house.address)));
  const saved = () => savers.reduce((sum, one) => sum + one.count(), 0);
  for (let kill = 0; kill < Number(count); kill++) {
    // In the middle of saving: not before it goes on after the last one.
    const enough = saved() + 5 + 100 * random();
    while (saved() < enough) await sleep(5);
    await sleep(20 * random());
    await (random() < 0.5 ? house.killServer() : house.killDatabase());
    if (kill % 10 === 9) say(`${kill + 1} kills, ${saved()} edits acknowledged`);
  }
  await Promise.all(savers.map((one) => one.end()));
  const faults = (await Promise.all(savers.map((one) => one.faults()))).flat();
  for (const fault of faults) say(`wrong: ${fault}`);
  row(
    'kills of server or database while 8 people save',
    count,
    faults.length,
    `${saved()} edits, seed ${seed}`,
  );
  await house.stop();
  return faults.length;
}

const DEMO_STATE = `select string_agg(p.name || ' ' || p.revision || ' ' || (select count(*) from edit e where e.project_id = p.id), '; ' order by p.name)
  from project p join member m on m.project_id = p.id join account a on a.id = m.account_id where a.email = 'demo@kadrel.example'`;
const asked = (url, sql) => {
  const { stdout, stderr, status } = spawnSync(binaryOf('psql'), [url, '-tAc', sql], { encoding: 'utf8' });
  if (status !== 0) throw new Error(stderr);
  return stdout.trim();
};

/** Migrations and the seed of the demo are killed at some moment; the next start has to find its way. */
export async function starts([count = '30', seed = '1']) {
  const random = randomOf(Number(seed));
  const cluster = await startTestCluster({ durable: true });
  const reference = cluster.database('kadrel_whole');
  const began = performance.now();
  migrate(environmentOf(reference));
  const whole = performance.now() - began;
  const wanted = asked(reference, DEMO_STATE);
  let wrong = 0;
  for (let i = 0; i < Number(count); i++) {
    const url = cluster.database(`kadrel_${i}`);
    const child = spawn(process.execPath, ['apps/server/dist/main.js', '--migrate'], {
      cwd: ROOT,
      env: { ...process.env, ...environmentOf(url) },
      stdio: 'ignore',
    });
    const after = whole * (0.2 + 0.8 * random());
    await sleep(after);
    await endChild(child, 'SIGKILL');
    migrate(environmentOf(url));
    const found = asked(url, DEMO_STATE);
    if (found === wanted) continue;
    wrong += 1;
    say(`wrong: killed after ${after.toFixed(0)} ms: ${found}`);
  }
  row('kills during migration and seed', count, wrong, `${wanted}, seed ${seed}`);
  await cluster.stop();
  return wrong;
}

/** A disk of the database's own that runs full while people save, and has room again. */
export async function fullDisk() {
  if (!isRoot()) throw new SetupError('A small disk can only be mounted by root.');
  const disk = mkdtempSync(join(tmpdir(), 'kadrel-disk-'));
  const mounted = spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=250m', 'tmpfs', disk], { encoding: 'utf8' });
  if (mounted.status !== 0) throw new SetupError(`A small disk could not be mounted: ${mounted.stderr}`);
  try {
    return await onDisk(disk);
  } finally {
    spawnSync('umount', ['-l', disk]);
    rmSync(disk, { recursive: true, force: true });
  }
}

async function onDisk(disk) {
  const house = await victim({ parent: disk });
  const savers = await Promise.all(Array.from({ length: CLIENTS }, () => saver(house.address)));
  const health = async () => (await fetch(`${house.address()}/api/health`)).status;
  const ballast = join(disk, 'ballast');
  const faults = [];
  for (let round = 0; round < 3; round++) {
    await sleep(1000);
    fill(ballast);
    let sick = 200;
    for (let i = 0; i < 300 && sick === 200; i++) {
      await sleep(RETRY_MS);
      sick = await health().catch(() => 0);
    }
    if (sick === 200) faults.push('a full disk was not told by health');
    rmSync(ballast);
    // A database that had no room for its log may have ended.
    if ((await health().catch(() => 0)) !== 200) await house.killDatabase();
    if ((await health()) !== 200) faults.push('health is not well again');
  }
  await sleep(2000);
  await Promise.all(savers.map((one) => one.end()));
  faults.push(...(await Promise.all(savers.map((one) => one.faults()))).flat());
  for (const fault of faults) say(`wrong: ${fault}`);
  const saved = savers.reduce((sum, one) => sum + one.count(), 0);
  row('the disk runs full while 8 people save', 3, faults.length, `${saved} edits`);
  await house.stop();
  return faults.length;
}

/** All that is left of a disk. */
function fill(path) {
  const block = Buffer.alloc(1_000_000);
  for (let i = 0; i < 1000; i++)
    try {
      writeFileSync(path, block, { flag: 'a' });
    } catch (error) {
      if (error.code === 'ENOSPC') return;
      throw error;
    }
}

const METRICS_PORT = 4191;

/** Trials that ask a server of their own, from a process of their own. */
const asking = (what) => async (rest) => {
  const cluster = await startTestCluster();
  const environment = {
    ...environmentOf(cluster.database('kadrel')),
    KADREL_METRICS_PORT: String(METRICS_PORT),
  };
  migrate(environment);
  const { child, address } = await startServer(environment);
  const tried = spawn(process.execPath, ['checks/dist/torture.js', what, ...rest], {
    cwd: ROOT,
    stdio: 'inherit',
    env: {
      ...process.env,
      KADREL_ADDRESS: address,
      KADREL_METRICS: `http://127.0.0.1:${METRICS_PORT}/metrics`,
    },
  });
  const code = await new Promise((resolve) => tried.once('exit', resolve));
  await endChild(child);
  await cluster.stop();
  return code;
};

export const SAVING = { kills, starts, disk: fullDisk, pages: asking('pages'), held: asking('held') };

export async function tortureSaving(what, rest) {
  ensurePostgres();
  ensureBuilt();
  const wrong = await SAVING[what](rest);
  if (wrong !== 0) process.exitCode = 1;
}
