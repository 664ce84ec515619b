/**
 * `npm run torture -- golden [store [COUNT] | add FILE | round]`: holds the present house against the ledgers that are kept, keeps others,
 * adds those of a file (a list of lists of statements), or takes over measures that differ by rounding alone.
 */
import { readFileSync, writeFileSync } from 'node:fs';
import { gunzipSync, gzipSync } from 'node:zlib';
import { loadKernel } from '@kadrel/kernel/node';
import type { Evaluator } from '@kadrel/kernel';
import { timed } from '../bench.ts';
import { say } from '../torture/table.ts';
import { randomLedger, replay, type Golden } from './ledgers.ts';

/** From the root of the house, where tests and trials are started. */
const FILE = 'checks/golden.json.gz';
/** What takes longer is not kept: it would be replayed again and again. */
const SLOW_MS = 3000;
/** After so many ledgers the kernel is loaded anew: it loses some memory with every operation. */
const A_KERNEL = 50;

export const storedLedgers = (): Golden[] =>
  JSON.parse(gunzipSync(readFileSync(FILE)).toString('utf8')) as Golden[];

export async function runGolden([what, count = '300']: readonly string[]): Promise<void> {
  if (what === 'store') return store(Number(count));
  if (what === 'add') return add(count);
  if (what === 'round') return round();
  let differing = 0;
  const stored = storedLedgers();
  await withKernels(stored.length, (kernel, i) => {
    const found = differences(stored[i]!, replay(kernel, stored[i]!.statements));
    for (const words of found) say(`ledger ${i}: ${words}`);
    if (found.length > 0) differing += 1;
  });
  say(`${stored.length - differing} of ${stored.length} ledgers are as they were`);
  if (differing > 0) process.exitCode = 1;
}

async function store(count: number): Promise<void> {
  const ledgers: Golden[] = [];
  for (let seed = 0; ledgers.length < count; seed += A_KERNEL) {
    await withKernels(Math.min(A_KERNEL, count - ledgers.length), (kernel, i) => {
      const ledger = randomLedger(kernel, seed + i);
      if (timed(() => replay(kernel, ledger.statements)) < SLOW_MS) ledgers.push(ledger);
    });
    say(`${ledgers.length} ledgers`);
  }
  const titles = ledgers.flatMap((one) => one.titles);
  const refused = titles.filter((title) => title.startsWith('refused')).length;
  writeFileSync(FILE, gzipSync(JSON.stringify(ledgers), { level: 9 }));
  say(`${ledgers.length} ledgers, ${titles.length} statements, ${refused} of them refused`);
}

async function add(file: string): Promise<void> {
  const more = JSON.parse(readFileSync(file, 'utf8')) as Golden['statements'][];
  const kernel = await loadKernel();
  const made = more.map((statements) => replay(kernel, statements));
  for (const { titles } of made) say(titles.join(' · '));
  writeFileSync(FILE, gzipSync(JSON.stringify([...storedLedgers(), ...made]), { level: 9 }));
}

/** Sums that are made in another order, or of fewer terms, differ by less than this part of themselves. */
const ROUNDING = 1e-11;

/** Nothing is written where anything else differs. */
async function round(): Promise<void> {
  const kept = [...storedLedgers()];
  let rounded = 0;
  let others = 0;
  await withKernels(kept.length, (kernel, i) => {
    // As it is stored, so that what is left out of files is not told as a difference.
    const now = JSON.parse(JSON.stringify(replay(kernel, kept[i]!.statements))) as Golden;
    const found = differences(kept[i]!, now);
    if (found.length === 0) return;
    if (isRounding(kept[i]!, now)) rounded += 1;
    else {
      others += 1;
      for (const words of found) say(`ledger ${i}: ${words}`);
    }
    kept[i] = now;
  });
  say(`${rounded} ledgers differ by rounding, ${others} otherwise`);
  if (others > 0) process.exitCode = 1;
  else writeFileSync(FILE, gzipSync(JSON.stringify(kept), { level: 9 }));
}

/** Whether all texts are the same, and all numbers within rounding. */
function isRounding(was: unknown, is: unknown): boolean {
  if (typeof was === 'number' && typeof is === 'number')
    return Math.abs(was - is) <= ROUNDING * Math.max(1, Math.abs(was));
  if (typeof was !== 'object' || was === null || typeof is !== 'object' || is === null) return was === is;
  const [before, after] = [Object.entries(was), new Map<string, unknown>(Object.entries(is))];
  return before.length === after.size && before.every(([key, value]) => isRounding(value, after.get(key)));
}

async function withKernels(count: number, work: (kernel: Evaluator, i: number) => void): Promise<void> {
  let kernel = await loadKernel();
  for (let i = 0; i < count; i++) {
    if (i > 0 && i % A_KERNEL === 0) kernel = await loadKernel();
    work(kernel, i);
  }
}

/** In words; none where all is the same bit for bit. */
export function differences(was: Golden, is: Golden): string[] {
  const titles = was.titles.flatMap((title, i) =>
    title === is.titles[i] ? [] : [`“${title}” is “${is.titles[i]}”`],
  );
  const parts = was.parts.flatMap((part, i) =>
    JSON.stringify(part) === JSON.stringify(is.parts[i])
      ? []
      : [`${JSON.stringify(part)} is ${JSON.stringify(is.parts[i])}`],
  );
  return [...titles, ...parts, ...(was.parts.length === is.parts.length ? [] : ['other parts'])];
}
