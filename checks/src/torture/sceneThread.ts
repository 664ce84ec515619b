/** The thread that tries scenes of combinations: a scene comes in, its verdicts go out. */
import { isFatal } from '@kadrel/kernel';
import { loadLibraries } from '@kadrel/kernel/node';
import { parentPort } from 'node:worker_threads';
import { trial, type Verdict } from './booleans.ts';
import { loadFacets } from './facets.ts';

export interface Scene {
  readonly class: string;
  readonly seed: number;
}

export interface SceneDone {
  readonly verdicts: readonly Verdict[];
  readonly ms: number;
}

/** After so many scenes the kernel is loaded anew: it loses some memory with every operation. */
const SCENES_A_KERNEL = 400;

export async function serveScenes(): Promise<void> {
  const facets = await loadFacets();
  let libraries = await loadLibraries();
  let done = 0;

  /** A trap of the kernel’s memory ends the kernel, as it does on the page: that is a refusal, and the kernel is loaded anew. */
  async function survived(scene: Scene): Promise<Verdict[]> {
    if (done > 0 && done % SCENES_A_KERNEL === 0) libraries = await loadLibraries();
    done++;
    try {
      return trial(libraries, facets, scene);
    } catch (error) {
      if (!isFatal(error)) throw error;
      libraries = await loadLibraries();
      return [{ ...scene, how: 'union', outcome: 'refused', words: `the kernel gave up: ${String(error)}` }];
    }
  }

  parentPort!.on('message', (scene: Scene) => {
    const started = performance.now();
    void survived(scene).then((verdicts) =>
      parentPort!.postMessage({ verdicts, ms: performance.now() - started } satisfies SceneDone),
    );
  });
}
