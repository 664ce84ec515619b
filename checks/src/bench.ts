/** What the benches share, and the plate with holes. */
import type { Statement } from '@kadrel/testing';

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
