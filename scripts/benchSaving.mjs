/**
 * What saving one small edit costs, beside a bare commit of one row: `pgbench` on the same cluster, with as many clients, in the
 * same run. Every client has a project of its own, and sends its next edit when the last one was answered.
 */
import { spawnSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { connect } from 'node:net';
import { writeFileSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { endChild, migrate, startServer } from './project.mjs';
import { binaryOf, startTestCluster } from './postgres.mjs';

const SECONDS = 6;
const WARM_UPS = 3;
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
    for (let round = 0; round < WARM_UPS; round++) await saves(address, 10);
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
    one.close();
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

/**
 * A connection that posts one request after another. By the bare socket, so that as little as can be of what is measured is our own:
 * the client of `pgbench` is as lean.
 */
function connection(address) {
  const { hostname, port } = new URL(address);
  const socket = connect({ host: hostname, port: Number(port), noDelay: true });
  let [received, answered] = ['', undefined];
  socket.on('data', (part) => {
    received += part.latin1Slice();
    const head = received.indexOf('\r\n\r\n') + 4;
    const length = Number(/content-length: (\d+)/i.exec(received)?.[1]);
    if (head < 4 || received.length < head + length) return;
    const answer = { status: Number(received.slice(9, 12)), text: received.slice(head, head + length) };
    received = '';
    answered.resolve(answer);
  });
  socket.on('error', (error) => answered?.reject(error));
  const post = (path, text, cookie) =>
    new Promise((resolve, reject) => {
      answered = { resolve, reject };
      const lines = [
        `POST ${path} HTTP/1.1`,
        `Host: ${hostname}:${port}`,
        'Content-Type: application/json',
        `Content-Length: ${Buffer.byteLength(text)}`,
        `Cookie: ${cookie}`,
      ];
      socket.write(`${lines.join('\r\n')}\r\n\r\n${text}`);
    });
  return { post, close: () => socket.destroy() };
}

async function posted(url, body, cookie) {
  const headers = { 'Content-Type': 'application/json', ...(cookie ? { cookie } : {}) };
  const answer = await fetch(url, { method: 'POST', headers, body: JSON.stringify(body) });
  return { cookie: answer.headers.get('set-cookie'), body: await answer.json() };
}

/** Somebody with a project, who saves one edit after another. */
async function client(address) {
  const signed = await posted(`${address}/api/sign-up`, {
    email: `${randomUUID()}@kadrel.example`,
    name: 'Ada',
    password: 'a long password',
  });
  const cookie = signed.cookie.split(';')[0];
  const { id } = (await posted(`${address}/api/projects`, { name: 'Bench', scene: {} }, cookie)).body;
  const { post, close } = connection(address);
  let base = 0;
  const send = async (edits) => {
    const answer = await post(`/api/projects/${id}/edits`, JSON.stringify({ base, edits }), cookie);
    if (answer.status !== 201) throw new Error(`A save was answered with ${answer.status}: ${answer.text}`);
    base = JSON.parse(answer.text).revision;
  };
  return {
    close,
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
  for (const { close } of clients) close();
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
