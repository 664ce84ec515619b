/** `npm run torture -- booleans [COUNT] [SEED] [CLASS,…]`: right, refused and wrong by class, and the seeds of what is not right. */
import { once } from 'node:events';
import { availableParallelism } from 'node:os';
import { Worker } from 'node:worker_threads';
import type { Verdict } from './booleans.ts';
import { CLASSES } from './cases.ts';
import type { Scene, SceneDone } from './sceneThread.ts';
import { clock, isReported, printTable, say } from './table.ts';

/**
 * s that a scene may take before its thread is ended and it counts as refused: the slowest that ended took four minutes of a machine
 * with other work. `TORTURE_SECONDS` says otherwise.
 */
const MAX_SECONDS = Number(process.env.TORTURE_SECONDS ?? 900);

export async function runBooleans([count = '10000', start = '1', only]: readonly string[]): Promise<void> {
  const classes = Object.keys(CLASSES).filter(
    (name) => only === undefined || only.split(',').some((one) => name.includes(one)),
  );
  const verdicts: Verdict[] = [];
  const times = new Map<string, number>();
  const isTimeLeft = clock();
  let next = 0;

  async function work(): Promise<void> {
    const thread = new SceneThread();
    while (verdicts.length < Number(count) && isTimeLeft()) {
      const i = next++;
      const scene = {
        class: classes[i % classes.length]!,
        seed: Number(start) + Math.floor(i / classes.length),
      };
      const { verdicts: some, ms } = await thread.trial(scene);
      times.set(scene.class, (times.get(scene.class) ?? 0) + ms);
      verdicts.push(...some);
      for (const one of some.filter(isReported))
        say(`${one.outcome}: ${one.class}, seed ${one.seed}, ${one.how}: ${one.words}`);
    }
    thread.end();
  }

  await Promise.all(Array.from({ length: availableParallelism() }, work));
  printTable(classes, verdicts, times);
  say(`seeds from ${start}`);
  if (verdicts.some(({ outcome }) => outcome === 'wrong')) process.exitCode = 1;
}

/** A thread that tries scenes one after the other, and is replaced when one does not end. */
class SceneThread {
  private worker: Worker | undefined;

  async trial(scene: Scene): Promise<SceneDone> {
    const worker = (this.worker ??= new Worker(process.argv[1]!, { argv: ['scenes'] }));
    const started = performance.now();
    const late = new AbortController();
    const timer = setTimeout(() => late.abort(), MAX_SECONDS * 1000);
    worker.postMessage(scene);
    try {
      // `once` rejects where the thread ends by an error.
      const [done] = (await once(worker, 'message', { signal: late.signal })) as [SceneDone];
      return done;
    } catch (error) {
      this.end();
      const words = late.signal.aborted ? `did not end within ${MAX_SECONDS} s` : String(error);
      return {
        verdicts: [{ ...scene, how: 'union', outcome: 'refused', words }],
        ms: performance.now() - started,
      };
    } finally {
      clearTimeout(timer);
    }
  }

  end(): void {
    void this.worker?.terminate();
    this.worker = undefined;
  }
}
