import { emptyDocument, type KadrelDocument, type Typed } from '@kadrel/core';
import { said } from '@kadrel/testing';
import { Evaluator, faceNamesOf } from '../evaluate.ts';
import { sharedLibraries } from '../node.ts';

let evaluator: Evaluator;
beforeAll(async () => {
  evaluator = new Evaluator(await sharedLibraries());
});

const after = (document: KadrelDocument, verb: string, typed: Typed) => said(document, verb, typed).document;

/** A plate with so many columns of eleven holes ⌀6. */
function sieve(columns: number) {
  let document = emptyDocument();
  document = after(document, 'box', { as: 'plate', size: ['300', '220', '8'] });
  document = after(document, 'cylinder', {
    as: 'drill',
    diameter: '6',
    height: '20',
    at: ['20', '15', '-5'],
  });
  const grid = { columns: String(columns), columnPitch: '20', rows: '11', rowPitch: '17' };
  document = after(document, 'grid', { as: 'drills', parts: ['drill'], ...grid });
  document = after(document, 'subtract', { as: 'sieve', from: 'plate', parts: ['drills'] });
  const { id } = Object.values(document.items).find(({ name }) => name === 'sieve')!;
  return { ...evaluator.facts(document, id), measures: evaluator.measure(document, id) };
}

/** Volume within facets, mm³, by the divergence theorem. */
function volumeWithin(positions: Float32Array, triangles: Uint32Array): number {
  let sum = 0;
  const at = (i: number) => [positions[3 * i]!, positions[3 * i + 1]!, positions[3 * i + 2]!] as const;
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = [at(triangles[t]!), at(triangles[t + 1]!), at(triangles[t + 2]!)];
    sum +=
      (a[0] * (b[1] * c[2] - b[2] * c[1]) +
        a[1] * (b[2] * c[0] - b[0] * c[2]) +
        a[2] * (b[0] * c[1] - b[1] * c[0])) /
      6;
  }
  return sum;
}

/** Edges of facets that do not lie between exactly two, once each way. */
function openEdges(positions: Float32Array, triangles: Uint32Array): number {
  const place = (i: number) => positions.subarray(3 * i, 3 * i + 3).join(' ');
  const uses = new Map<string, number>();
  for (let t = 0; t < triangles.length; t += 3)
    for (const [a, b] of [
      [0, 1],
      [1, 2],
      [2, 0],
    ] as const) {
      const key = `${place(triangles[t + a]!)} | ${place(triangles[t + b]!)}`;
      uses.set(key, (uses.get(key) ?? 0) + 1);
    }
  return [...uses].filter(
    ([key, count]) => count !== 1 || uses.get(key.split(' | ').reverse().join(' | ')) !== 1,
  ).length;
}

test('flat faces with many holes are laid out in facets that close, face outward and know their face', () => {
  const facts = sieve(13);
  const { measures } = facts;
  const { positions, triangles, faceOfTriangle } = facts.snaps;
  expect(openEdges(positions, triangles)).toBe(0);
  // Circles of at least 21 chords hold at least 0.985 of their area, so that holes are a little too small.
  const holes = 143 * Math.PI * 9 * 8;
  const volume = volumeWithin(positions, triangles);
  expect(volume).toBeGreaterThan(measures.volume);
  expect(volume).toBeLessThan(measures.volume + 0.015 * holes);
  const top = faceNamesOf(facts).indexOf('top');
  const heights = new Set<number>();
  for (let t = 0; t < faceOfTriangle.length; t++)
    if (faceOfTriangle[t] === top) heights.add(positions[3 * triangles[3 * t]! + 2]!);
  expect([...heights]).toEqual([8]);
});

test('a face with few holes is left to the kernel, and closes too', () => {
  const { snaps } = sieve(2);
  expect(openEdges(snaps.positions, snaps.triangles)).toBe(0);
});
