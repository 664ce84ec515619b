import { spawn, type ChildProcess } from 'node:child_process';
import { chmodSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { createServer, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { ROOT } from '../scripts/project.mjs';

/** `npm start` with a folder of its own, and what it says. */
class Start {
  said = '';
  readonly child: ChildProcess;
  readonly ended: Promise<number | null>;

  constructor(folder: string, environment: NodeJS.ProcessEnv) {
    this.child = spawn(process.execPath, ['scripts/start.mjs'], {
      cwd: ROOT,
      env: { ...process.env, DATABASE_URL: undefined, KADREL_DATA: folder, ...environment },
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    for (const stream of [this.child.stdout!, this.child.stderr!])
      stream.setEncoding('utf8').on('data', (text: string) => (this.said += text));
    // What it leaves running holds its output open: its own end is what counts.
    this.ended = new Promise((resolve) => this.child.once('exit', resolve));
  }

  async says(words: RegExp): Promise<RegExpExecArray> {
    await expect.poll(() => this.said, { timeout: 120_000 }).toMatch(words);
    return words.exec(this.said)!;
  }
}

const RUNNING = /Kadrel is running at (\S+)/;
const freePort = () =>
  new Promise<{ port: string; give: () => Promise<void> }>((resolve) => {
    const taken = createServer();
    taken.listen(0, '127.0.0.1', () => {
      const { port } = taken.address() as AddressInfo;
      resolve({ port: String(port), give: () => new Promise((done) => void taken.close(() => done())) });
    });
  });
const isAlive = (pid: number) => {
  try {
    process.kill(pid, 0);
    return true;
  } catch {
    return false;
  }
};

test('starts that find a port in use, another start, or what a killed one left, say and do one thing each', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'kadrel-start-'));
  chmodSync(folder, 0o755);
  const { port, give } = await freePort();
  const start = () => new Start(folder, { PORT: port });
  try {
    const refused = start();
    expect(await refused.ended).toBe(1);
    await refused.says(
      new RegExp(`Port ${port} is in use: end what listens there, or set PORT to another one.`),
    );
    expect(refused.said).not.toMatch(/\bat .*:\d+:\d+|Error:/);
    await give();

    const first = start();
    const [, address] = await first.says(RUNNING);
    const second = start();
    expect(await second.ended).toBe(0);
    expect((await second.says(/running at (\S+) already/))[1]).toBe(address);

    // Killed: its server and database go on, and the next start says where.
    const server = Number(readFileSync(join(folder, 'server.pid'), 'utf8'));
    first.child.kill('SIGKILL');
    await first.ended;
    expect(isAlive(server)).toBe(true);
    const third = start();
    expect(await third.ended).toBe(0);
    await third.says(/already/);

    // Killed before it said where it is: the next start ends what holds its port.
    rmSync(join(folder, 'run.json'));
    const fourth = start();
    await fourth.says(RUNNING);
    expect(isAlive(server)).toBe(false);

    const last = Number(readFileSync(join(folder, 'server.pid'), 'utf8'));
    fourth.child.kill('SIGINT');
    fourth.child.kill('SIGINT');
    await fourth.ended;
    await expect.poll(() => isAlive(last)).toBe(false);
  } finally {
    const database = /^\d+/.exec(
      readFileSync(join(folder, 'pg', 'postmaster.pid'), { encoding: 'utf8', flag: 'a+' }),
    );
    if (database && isAlive(Number(database[0]))) process.kill(Number(database[0]), 'SIGINT');
    rmSync(folder, { recursive: true, force: true, maxRetries: 20, retryDelay: 250 });
  }
});
