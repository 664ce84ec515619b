/** `npm run torture -- recipes [COUNT] [SEED]`: random recipes, by the verb that was tried. */
import { fork, type ChildProcess } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { fileURLToPath } from 'node:url';
import type { RecipeAsked, RecipeTold } from './recipeChild.ts';
import type { RecipeVerdict } from './recipes.ts';
import { clock, isReported, printTable, say } from './table.ts';

const CHILD = fileURLToPath(new URL('recipeChild.ts', import.meta.url));
/** As the page has it: what takes longer is given up. Of work, so that nothing is given up because the machine was busy. */
const PATIENCE_S = 120;
/** A process that does not even work is given up after so long, s. */
const MAX_WAIT_S = 3600;
/** One recipe over which the kernel stops more often is wrong. */
const MAX_STOPS = 5;
/** What the page says. */
const STOPPED = 'The kernel stopped while it built this.';

/** Over what the kernel stopped, and how. */
interface Stop {
  readonly key: string | undefined;
  readonly words: string;
}

/** A process with a kernel, which is begun anew when the kernel has stopped. */
class Kernel {
  private child: ChildProcess | undefined;

  /** What came of a recipe, or over what the kernel stopped. */
  ask(asked: RecipeAsked): Promise<readonly RecipeVerdict[] | Stop> {
    const child = (this.child ??= fork(CHILD, { execArgv: ['--import', 'tsx'] }));
    return new Promise((resolve) => {
      let key: string | undefined;
      const settle = (outcome: readonly RecipeVerdict[] | Stop) => {
        clearInterval(timer);
        child.removeAllListeners();
        if ('words' in outcome) this.end();
        resolve(outcome);
      };
      let begun = timesOf(child);
      const timer = setInterval(() => {
        const { worked, waited } = timesOf(child);
        const isLate = worked - begun.worked > PATIENCE_S || waited - begun.waited > MAX_WAIT_S;
        if (isLate) settle({ key, words: `not done after ${PATIENCE_S} s of work` });
      }, 1000);
      child.on('message', (told: RecipeTold) => {
        if (told.is === 'done') return settle(told.verdicts);
        if (told.is === 'stopped') return settle(told);
        key = told.key;
        begun = timesOf(child);
      });
      child.on('exit', (code) => settle({ key, words: `ended with ${code}` }));
      child.send(asked);
    });
  }

  end(): void {
    this.child?.kill('SIGKILL');
    this.child = undefined;
  }
}

/** Ticks of the system's clock in a second, on all Linux systems that we know. */
const TICKS = 100;

/** How long a process has worked, and the clock, s. From proc(5): 14 and 15 are times in its own code and in the system's. */
function timesOf({ pid }: ChildProcess): { readonly worked: number; readonly waited: number } {
  const stat = readFileSync(`/proc/${pid}/stat`, 'utf8');
  const [own, system] = stat
    .slice(stat.lastIndexOf(')') + 2)
    .split(' ')
    .slice(11, 13);
  return { worked: (Number(own) + Number(system)) / TICKS, waited: performance.now() / 1000 };
}

/** As the page does it: what has stopped the kernel is not tried again, and must then be a step that is named. */
async function tried(kernel: Kernel, seed: number): Promise<RecipeVerdict[]> {
  const poisoned = new Map<string, string>();
  const stops: RecipeVerdict[] = [];
  for (;;) {
    const came = await kernel.ask({ seed, poisoned: [...poisoned] });
    if (!('words' in came)) return [...stops, ...came];
    const { key } = came;
    const isAgain = key === undefined || poisoned.has(key) || stops.length >= MAX_STOPS;
    const words = `the kernel stopped: ${came.words}`;
    stops.push({ class: 'kernel', outcome: isAgain ? 'wrong' : 'refused', seed, words });
    if (isAgain) return stops;
    poisoned.set(key, STOPPED);
  }
}

export async function runRecipes([count = '1000', start = '1']: readonly string[]): Promise<void> {
  const verdicts: RecipeVerdict[] = [];
  const begun = performance.now();
  const isTimeLeft = clock();
  let next = Number(start);
  const one = async () => {
    const kernel = new Kernel();
    while (next < Number(start) + Number(count) && isTimeLeft()) {
      const some = await tried(kernel, next++);
      verdicts.push(...some);
      for (const each of some.filter(isReported))
        say(`${each.outcome}: ${each.class}, seed ${each.seed}: ${each.words}`);
    }
    kernel.end();
  };
  await Promise.all(Array.from({ length: availableParallelism() }, one));
  const times = new Map([['off', performance.now() - begun]]);
  printTable([...new Set(verdicts.map((each) => each.class))].sort(), verdicts, times);
  say(`${next - Number(start)} recipes, seeds from ${start}`);
  if (verdicts.some(({ outcome }) => outcome === 'wrong')) process.exitCode = 1;
}
