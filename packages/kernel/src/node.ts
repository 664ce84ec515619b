/** The kernel in Node: in this process. */
import initFacets from 'manifold-3d';
import init from 'replicad-opencascadejs';
import type { Libraries } from './builder.ts';
import { Evaluator } from './evaluate.ts';
import type { Occt } from './occt/occt.ts';

/** Boots in some 400 ms. The kernel's own chatter is silenced: standard output belongs to the caller. */
export async function loadOcct(): Promise<Occt> {
  return init({ print: () => undefined, printErr: () => undefined });
}

/** The libraries of the kernel, with a memory of their own. */
export async function loadLibraries(): Promise<Libraries> {
  const [occt, facetter] = await Promise.all([loadOcct(), initFacets()]);
  facetter.setup();
  return { occt, facetter };
}

let shared: Promise<Libraries> | undefined;

/** Those of this process, loaded once: for all that do not wear them out. */
export function sharedLibraries(): Promise<Libraries> {
  shared ??= loadLibraries();
  return shared;
}

/** A kernel for Node. */
export async function loadKernel(): Promise<Evaluator> {
  return new Evaluator(await sharedLibraries());
}
