/**
 * What saving one small edit costs, beside a bare commit of one row: `pgbench` on the same cluster, with as many clients, in the
 * same run. Every client has a project of its own, and sends its next edit when the last one was answered.
 */
import { spawnSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { Agent, request } from 'node:http';
import { writeFileSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { endChild, migrate, startServer } from './project.mjs';
import { binaryOf, startTestCluster } from './postgres.mjs';

const SECONDS = 6;
const LONG_LEDGER = 5000;

/** @param line prints a ratio */
export async function benchSaving(line) {
  const cluster = await startTestCluster({ durable: true });
  try {
    const environment = {
      DATABASE_URL: cluster.database('kadrel_saving'),
      PORT: '0',
      KADREL_DEMO: '0',
      KADREL_RATE: '100000000',
    };
    migrate(environment);
    const { child, address } = await startServer(environment);
    // The server's code is compiled as it is used.
    await saves(address, 10);
    for (const clients of [50, 10]) {
      const bare = bareCommits(environment.DATABASE_URL, clients);
      const { perSecond, p95 } = await saves(address, clients);
      line(
        `saving one edit, ${clients} clients : a bare commit by pgbench`,
        bare / perSecond,
        '≤ 8',
        `${perSecond.toFixed(0)} : ${bare.toFixed(0)} a second, p95 ${p95.toFixed(1)} ms`,
      );
    }
    const one = await client(address);
    const short = await timesOf(one, 200);
    await one.fill(LONG_LEDGER);
    const long = await timesOf(one, 200);
    line(
      `saving the ${LONG_LEDGER + 200}th edit : the 50th`,
      long / short,
      '≤ 1.2',
      `${long.toFixed(2)} : ${short.toFixed(2)} ms`,
    );
    await endChild(child);
  } finally {
    await cluster.stop();
  }
}

/** Commits a second of one row of the size of an edit. */
function bareCommits(url, clients) {
  const folder = mkdtempSync(join(tmpdir(), 'kadrel-pgbench-'));
  const script = join(folder, 'commit.sql');
  writeFileSync(script, `insert into bare (body) values ('${JSON.stringify(editOf(1, 'x'))}'::jsonb);\n`);
  spawnSync(binaryOf('psql'), [
    url,
    '-qc',
    'create table if not exists bare (id serial primary key, body jsonb)',
  ]);
  const args = [
    '-n',
    '-f',
    script,
    '-c',
    String(clients),
    '-j',
    '2',
    '-T',
    String(SECONDS),
    '-M',
    'prepared',
    url,
  ];
  const { stdout, stderr } = spawnSync(binaryOf('pgbench'), args, { encoding: 'utf8' });
  rmSync(folder, { recursive: true, force: true });
  const found = /tps = ([\d.]+)/.exec(stdout);
  if (!found) throw new Error(`pgbench said nothing that is understood: ${stderr}`);
  return Number(found[1]);
}

const editOf = (value, id) => ({
  id: id ?? randomUUID(),
  kind: 'do',
  patches: [{ op: 'replace', path: ['scene', 'grid'], value }],
  inverses: [{ op: 'replace', path: ['scene', 'grid'], value: 5 }],
  line: { verb: 'scene', values: { grid: `${value} mm` }, title: `Grid ${value} mm`, author: 'Ada', time: 1 },
});

const agent = new Agent({ keepAlive: true });

/** By the plain client, so that as little as can be of what is measured is our own. */
const posted = (url, text, cookie) =>
  new Promise((resolve, reject) => {
    const headers = {
      'Content-Type': 'application/json',
      'Content-Length': Buffer.byteLength(text),
      ...(cookie ? { cookie } : {}),
    };
    request(url, { method: 'POST', agent, headers }, (answer) => {
      const parts = [];
      answer.on('data', (part) => parts.push(part));
      answer.once('end', () =>
        resolve({
          status: answer.statusCode,
          cookie: answer.headers['set-cookie']?.[0],
          text: Buffer.concat(parts).toString(),
        }),
      );
    })
      .once('error', reject)
      .end(text);
  });

/** Somebody with a project, who saves one edit after another. */
async function client(address) {
  const post = (path, body, cookie) => posted(`${address}/api${path}`, JSON.stringify(body), cookie);
  const signed = await post('/sign-up', {
    email: `${randomUUID()}@kadrel.example`,
    name: 'Ada',
    password: 'a long password',
  });
  const cookie = signed.cookie.split(';')[0];
  const made = await post('/projects', { name: 'Bench', scene: {} }, cookie);
  const { id } = JSON.parse(made.text);
  let base = 0;
  const send = async (edits) => {
    const answer = await post(`/projects/${id}/edits`, { base, edits }, cookie);
    if (answer.status !== 201) throw new Error(`A save was answered with ${answer.status}: ${answer.text}`);
    base = JSON.parse(answer.text).revision;
  };
  return {
    save: () => send([editOf(1 + (base % 9))]),
    async fill(count) {
      for (let i = 0; i < count; i += 100)
        await send(Array.from({ length: 100 }, (_, k) => editOf(1 + (k % 9))));
    },
  };
}

async function saves(address, count) {
  const clients = await Promise.all(Array.from({ length: count }, () => client(address)));
  const times = [];
  const end = performance.now() + SECONDS * 1000;
  await Promise.all(
    clients.map(async (one) => {
      while (performance.now() < end) {
        const started = performance.now();
        await one.save();
        times.push(performance.now() - started);
      }
    }),
  );
  times.sort((a, b) => a - b);
  return { perSecond: times.length / SECONDS, p95: times[Math.floor(0.95 * times.length)] };
}

/** The median of saving, one after another, ms. */
async function timesOf(one, count) {
  const times = [];
  for (let i = 0; i < count; i++) {
    const started = performance.now();
    await one.save();
    times.push(performance.now() - started);
  }
  return times.sort((a, b) => a - b)[Math.floor(count / 2)];
}
