/**
 * `npm run torture -- held [ROUNDS]`: how long requests hold the thread that answers everybody, against a server of its own
 * (`KADREL_ADDRESS`, and its metrics at `KADREL_METRICS`). What a client can send that is large, deep or long is sent, one after another,
 * and the longest wait of the event loop meanwhile is read from the metrics, which begin anew at each reading.
 */
import { randomUUID } from 'node:crypto';
import { setTimeout as wait } from 'node:timers/promises';
import { applyEdit, emptyDocument, type Edit } from '@kadrel/core';
import { editsOf, manyBoxes } from '../../../e2e/edits.ts';
import { median } from '../bench.ts';
import { say } from './table.ts';

const AIM_MS = 50;
const MAX_EDITS = 500;
const MANY = 4000;
/** Just below what the server takes. */
const LARGE_CHARACTERS = 3_900_000;

interface Asked {
  readonly method: string;
  readonly path: string;
  /** As it is sent. */
  readonly body?: string;
}
type Step = readonly [what: string, asked: () => Asked];

let cookie = '';

async function ask({ method, path, body }: Asked): Promise<{ status: number; text: string }> {
  const answer = await fetch(`${process.env.KADREL_ADDRESS}/api${path}`, {
    method,
    headers: { 'Content-Type': 'application/json', cookie },
    ...(body === undefined ? {} : { body }),
  });
  const [set] = answer.headers.getSetCookie();
  if (set) cookie = set.split(';')[0]!;
  // Taken as it comes, so that reading it does not keep a processor from the server.
  const parts: Uint8Array[] = [];
  for await (const part of answer.body!) parts.push(part);
  return { status: answer.status, text: Buffer.concat(parts).toString() };
}

const post = (path: string, body: unknown): Asked => ({ method: 'POST', path, body: JSON.stringify(body) });

/** ms; reading it begins a new count. */
async function longestWait(): Promise<number> {
  const text = await (await fetch(process.env.KADREL_METRICS!)).text();
  return 1000 * Number(/^nodejs_eventloop_lag_max_seconds (\S+)/m.exec(text)![1]);
}

/** Steps on a project with many parts, and on an empty one. */
async function stepsOf(): Promise<Step[]> {
  const document = manyBoxes(MANY).reduce(applyEdit, emptyDocument());
  const few = manyBoxes(MAX_EDITS);
  const made = async (asked: Asked) => (JSON.parse((await ask(asked)).text) as { id: string }).id;
  const large = await made(post('/projects/from-file', { name: 'Large', document }));
  const empty = await made(post('/projects', { name: 'Empty', scene: {} }));
  let base = 0;
  const save = (edits: readonly Edit[]) => {
    const fresh = edits.map((edit) => ({ ...edit, id: randomUUID() }));
    return post(`/projects/${empty}/edits`, { base, edits: fresh });
  };
  const saveNext = () => {
    const asked = save(editsOf([['scene', { grid: 1 + (base % 9) }]]));
    base += 1;
    return asked;
  };
  return [
    ['nothing', () => ({ method: 'GET', path: '/health/live' })],
    ['a small edit', saveNext],
    ['500 edits that do not fit any more', () => save(few)],
    ['a file of 4,000 parts', () => post('/projects/from-file', { name: 'Again', document })],
    ['opening 4,000 parts', () => ({ method: 'GET', path: `/projects/${large}` })],
    ['duplicating 4,000 parts', () => post(`/projects/${large}/duplicate`, {})],
    ['a ledger', () => ({ method: 'GET', path: `/projects/${empty}/edits` })],
    ['3.9 MB of text', () => save([{ ...few[0]!, id: 'x'.repeat(LARGE_CHARACTERS) }])],
    [
      '3.9 MB of numbers',
      () => post(`/projects/${empty}/edits`, { base: 0, edits: Array(1_900_000).fill(1) }),
    ],
    [
      'brackets a million deep',
      () => ({ method: 'POST', path: `/projects/${empty}/edits`, body: '['.repeat(1e6) + ']'.repeat(1e6) }),
    ],
    [
      'brackets 30,000 deep',
      () => ({ method: 'POST', path: `/projects/${empty}/edits`, body: '['.repeat(3e4) + ']'.repeat(3e4) }),
    ],
    [
      '60 kB of an edit’s patches',
      () => save([{ ...few[0]!, patches: Array.from({ length: 1000 }, () => few[0]!.patches[0]!) }]),
    ],
    ['all of the account', () => ({ method: 'GET', path: '/account/export' })],
    ['signing in', () => post('/sign-in', { email: 'nobody@kadrel.example', password: randomUUID() })],
  ];
}

export async function runHeld([rounds = '15']: readonly string[]): Promise<void> {
  await ask(post('/demo', {}));
  const steps = await stepsOf();
  say(`| request | answered | the loop was held, median and most of ${rounds}, ms |`);
  let over = 0;
  for (const [what, asked] of steps) {
    const waits: number[] = [];
    let status = 0;
    for (let round = 0; round < Number(rounds); round++) {
      const request = asked();
      await wait(20);
      await longestWait();
      ({ status } = await ask(request));
      waits.push(await longestWait());
    }
    const middle = median(waits);
    if (middle > AIM_MS) over += 1;
    say(`| ${what} | ${status} | ${middle.toFixed(1)} | ${Math.max(...waits).toFixed(1)} |`);
  }
  say(over === 0 ? 'None holds it over 50 ms in the middle.' : `${over} hold it over 50 ms.`);
  if (over > 0) process.exitCode = 1;
}
