/** `npm run torture -- assemblies [COUNT] [SEED]`: solids at random, pair by pair against facets, and planted faults. */
import { loadLibraries } from '@kadrel/kernel/node';
import { PLANTED_KINDS, tryAssembly, tryPlanted, type Libraries, type PairVerdict } from './assemblies.ts';
import { loadFacets } from './facets.ts';
import { clock, isReported, printTable, say } from './table.ts';

/** A kernel that has grown beyond this is given up, as the page does. */
const MAX_BYTES = 1 << 30;
/** Of so many assemblies one has faults planted in it, each kind in turn. */
const PLANTED_EVERY = 5;

async function planted(libraries: Libraries, seed: number): Promise<PairVerdict> {
  const fault = PLANTED_KINDS[(seed / PLANTED_EVERY) % PLANTED_KINDS.length]!;
  const { clean, found } = await tryPlanted(libraries, seed, fault);
  const isRight = clean.length === 0 && found.length === 1 && found[0]!.kind === fault;
  const words = `clean ${clean.map(({ kind }) => kind).join()}, found ${found.map(({ kind }) => kind).join()}`;
  return { class: `planted: ${fault}`, outcome: isRight ? 'right' : 'wrong', seed, words };
}

export async function runAssemblies([count = '1000', start = '1']: readonly string[]): Promise<void> {
  let libraries = await loadLibraries();
  const facets = await loadFacets();
  const verdicts: PairVerdict[] = [];
  const isTimeLeft = clock();
  const begun = performance.now();
  for (let i = 0; i < Number(count) && isTimeLeft(); i++) {
    if (libraries.occt.wasmMemory.buffer.byteLength > MAX_BYTES) libraries = await loadLibraries();
    const seed = Number(start) + i;
    const some = tryAssembly(libraries, facets, seed);
    if (seed % PLANTED_EVERY === 0) some.push(await planted(libraries, seed));
    verdicts.push(...some);
    for (const one of some.filter(isReported))
      say(`${one.outcome}: ${one.class}, seed ${one.seed}: ${one.words}`);
  }
  const times = new Map([['all', performance.now() - begun]]);
  printTable([...new Set(verdicts.map((one) => one.class))].sort(), verdicts, times);
  say(`seeds from ${start}`);
  if (verdicts.some(({ outcome }) => outcome === 'wrong')) process.exitCode = 1;
}
