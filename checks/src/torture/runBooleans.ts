/** `npm run torture -- booleans [COUNT] [SEED] [CLASS,…]`: right, refused and wrong by class, and the seeds of what is not right. */
import { loadLibraries } from '@kadrel/kernel/node';
import Module from 'manifold-3d';
import { trial, type Verdict } from './booleans.ts';
import { CLASSES } from './cases.ts';
import { clock, isTold, printTable, say } from './table.ts';

/** After so many scenes the kernel is loaded anew: it loses some memory with every operation. */
const SCENES_A_KERNEL = 400;

export async function runBooleans([count = '10000', start = '1', only]: readonly string[]): Promise<void> {
  const facets = await Module();
  facets.setup();
  let libraries = await loadLibraries();
  const verdicts: Verdict[] = [];
  const times = new Map<string, number>();
  const classes = Object.keys(CLASSES).filter(
    (name) => only === undefined || only.split(',').some((one) => name.includes(one)),
  );

  /** A trap of the kernel’s memory ends the kernel, as it does on the page: that is a refusal, and the kernel is loaded anew. */
  async function survived(of: { class: string; seed: number }): Promise<Verdict[]> {
    try {
      return trial(libraries, facets, of);
    } catch (error) {
      if (!(error instanceof WebAssembly.RuntimeError)) throw error;
      libraries = await loadLibraries();
      return [{ ...of, how: 'union', outcome: 'refused', words: `the kernel gave up: ${error.message}` }];
    }
  }

  const isTimeLeft = clock();
  for (let i = 0; verdicts.length < Number(count) && isTimeLeft(); i++) {
    if (i > 0 && i % SCENES_A_KERNEL === 0) libraries = await loadLibraries();
    const name = classes[i % classes.length]!;
    const seed = Number(start) + Math.floor(i / classes.length);
    const started = performance.now();
    const some = await survived({ class: name, seed });
    times.set(name, (times.get(name) ?? 0) + performance.now() - started);
    verdicts.push(...some);
    for (const one of some.filter(isTold))
      say(`${one.outcome}: ${one.class}, seed ${one.seed}, ${one.how}: ${one.words}`);
  }
  printTable(classes, verdicts, times);
  say(`seeds from ${start}`);
  if (verdicts.some(({ outcome }) => outcome === 'wrong')) process.exitCode = 1;
}
