/** `npm run torture -- booleans [COUNT] [SEED] [CLASS,…]`: prints right, refused and wrong by class, and the seeds of what is not right. */
import { loadLibraries } from '@kadrel/kernel/node';
import Module from 'manifold-3d';
import { trial, type Verdict } from './booleans.ts';
import { CLASSES } from './cases.ts';

const [what = 'booleans', count = '10000', start = '1', only] = process.argv.slice(2);
if (what !== 'booleans') throw new Error(`There is no torture named ${what}: say booleans.`);

/** After so many scenes the kernel is loaded anew: it loses some memory with every operation. */
const SCENES_A_KERNEL = 400;
const facets = await Module();
facets.setup();
let libraries = await loadLibraries();
const verdicts: Verdict[] = [];
const times = new Map<string, number>();
const classes = Object.keys(CLASSES).filter(
  (name) => only === undefined || only.split(',').some((one) => name.includes(one)),
);
const began = performance.now();
/** A trial may be ended by the clock; the table then tells how far it came. */
const minutes = Number(process.env.TORTURE_MINUTES ?? Infinity);
const isTimeLeft = () => performance.now() - began < minutes * 60_000;
for (let i = 0; verdicts.length < Number(count) && isTimeLeft(); i++) {
  if (i > 0 && i % SCENES_A_KERNEL === 0) libraries = await loadLibraries();
  const name = classes[i % classes.length]!;
  const seed = Number(start) + Math.floor(i / classes.length);
  const started = performance.now();
  const some = await survived({ class: name, seed });
  times.set(name, (times.get(name) ?? 0) + performance.now() - started);
  verdicts.push(...some);
  for (const one of some)
    if (one.outcome === 'wrong' || (one.outcome === 'refused' && process.env.TORTURE_REFUSED))
      process.stdout.write(`${one.outcome}: ${one.class}, seed ${one.seed}, ${one.how}: ${one.words}\n`);
}

/** A trap of the kernel’s memory ends the kernel, as it does on the page: the combination is refused, and the kernel loaded anew. */
async function survived(of: { class: string; seed: number }): Promise<Verdict[]> {
  try {
    return trial(libraries, facets, of);
  } catch (error) {
    if (!(error instanceof WebAssembly.RuntimeError)) throw error;
    libraries = await loadLibraries();
    return [{ ...of, how: 'union', outcome: 'refused', words: `the kernel gave up: ${error.message}` }];
  }
}

const row = (cells: readonly (string | number)[]) =>
  process.stdout.write(`| ${cells.map((cell) => String(cell)).join(' | ')} |\n`);
row(['class', 'right', 'refused', 'wrong', 's']);
row(['---', '---', '---', '---', '---']);
const countOf = (list: readonly Verdict[], outcome: Verdict['outcome']) =>
  list.filter((one) => one.outcome === outcome).length;
for (const name of [...classes, 'all']) {
  const list = name === 'all' ? verdicts : verdicts.filter((one) => one.class === name);
  const seconds = [...times].reduce(
    (sum, [of, ms]) => sum + (name === 'all' || of === name ? ms / 1000 : 0),
    0,
  );
  row([name, countOf(list, 'right'), countOf(list, 'refused'), countOf(list, 'wrong'), seconds.toFixed(1)]);
}
process.stdout.write(`${((performance.now() - began) / 1000).toFixed(0)} s, seeds from ${start}\n`);
process.exitCode = verdicts.some(({ outcome }) => outcome === 'wrong') ? 1 : 0;
