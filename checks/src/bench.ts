/** Parts for checks, given by ledger, built by a kernel in this process. */
import {
  emptyDocument,
  isRefusal,
  perform,
  plainWorld,
  verbNamed,
  type KadrelDocument,
  type ItemId,
  type Typed,
  type World,
} from '@kadrel/core';
import { worldOf, type Evaluator } from '@kadrel/kernel';

export type Statement = readonly [verb: string, typed: Typed];

type WorldFor = (document: KadrelDocument, newId: () => ItemId) => World;

/** Where no statement asks the kernel anything. Throws an Error where one is refused. */
export const built = (statements: readonly Statement[]): KadrelDocument => carriedOut(statements, plainWorld);

/** Where names of faces and edges are looked up. Throws an Error where a statement is refused. */
export const builtBy = (kernel: Evaluator, statements: readonly Statement[]): KadrelDocument =>
  carriedOut(statements, (document, newId) => worldOf(document, kernel, newId));

function carriedOut(statements: readonly Statement[], worldFor: WorldFor): KadrelDocument {
  let document = emptyDocument();
  let ids = 0;
  for (const [verb, typed] of statements) {
    const world = worldFor(document, () => `p${++ids}`);
    const done = perform(verbNamed(verb)!, typed, document, world);
    if (isRefusal(done)) throw new Error(`${verb}, ${done.blank}: ${done.message}`);
    document = done.document;
  }
  return document;
}

export const idOf = (document: KadrelDocument, name: string): string =>
  Object.values(document.items).find((item) => item.name === name)!.id;
export const measured = (kernel: Evaluator, document: KadrelDocument, name: string) =>
  kernel.measure(document, idOf(document, name));

/** A small repeatable source of numbers in [0, 1). Source: mulberry32 by T. Ettinger, public domain, from memory. */
export function numbers(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** A plate with a grid of holes through it, each hole an operand. */
export function plateWithHoles(rows: number, columns: number): Statement[] {
  const [pitch, diameter, thickness] = [10, 6, 8];
  const drills = Array.from({ length: rows * columns }, (_, i): Statement => [
    'cylinder',
    {
      as: `drill ${i}`,
      diameter,
      height: thickness + 10,
      at: [pitch * ((i % columns) + 0.5), pitch * (Math.floor(i / columns) + 0.5), -5],
    },
  ]);
  return [
    ['box', { as: 'plate', size: [pitch * columns, pitch * rows, thickness] }],
    ...drills,
    ['subtract', { as: 'holed', from: 'plate', parts: drills.map(([, typed]) => typed.as) }],
  ];
}

export function median(times: readonly number[]): number {
  return [...times].sort((a, b) => a - b)[Math.floor(times.length / 2)]!;
}

export function timed(work: () => void): number {
  const start = performance.now();
  work();
  return performance.now() - start;
}

/** Medians of several works, run in turn, so that a busy machine slows all alike. */
export function inTurn(rounds: number, works: readonly (() => void)[]): number[] {
  const times = works.map((): number[] => []);
  for (let round = 0; round < rounds; round++) works.forEach((work, i) => times[i]!.push(timed(work)));
  return times.map(median);
}

export const line = (what: string, ratio: number, aim: string, detail: string) =>
  process.stdout.write(
    `${what.padEnd(66)} ${ratio.toFixed(2).padStart(6)}   aim ${aim.padEnd(10)} ${detail}\n`,
  );
export const ms = (n: number) => `${n.toFixed(1)} ms`;

interface Deletable {
  delete(): void;
}

/** Runs `work` and gives back all that it kept. */
export function kept(work: (keep: <T extends Deletable>(object: T) => T) => void): void {
  const made: Deletable[] = [];
  work((object) => (made.push(object), object));
  for (const object of made.reverse()) object.delete();
}
