/** Patches that share their edges, against the same patches sewn together by the kernel. */
import type { Vec3 } from '@kadrel/core';
import { numbers } from '@kadrel/testing';
import { areaCentroidOf } from '../../facts/integrals.ts';
import { measureShape } from '../../facts/measure.ts';
import type { NamedShape } from '../../naming/named.ts';
import { sharedLibraries } from '../../node.ts';
import { release, scope, uniqueShapes, type Occt } from '../../occt/occt.ts';
import { isSound } from '../../occt/sound.ts';
import { sewn } from '../surfaces.ts';
import { CUBE } from './cages.fixture.ts';
import { closedPatches, type LaidPatch } from './closedPatches.ts';
import { patchFace } from './patchFace.ts';
import { edgeKey, patchesOf, refined, type Cage } from './refined.ts';

let occt: Occt;
beforeAll(async () => {
  ({ occt } = await sharedLibraries());
});

/** A box about as wide as `size` (mm) whose corners are off by up to a tenth of it, some of them with two sharp edges. */
function bentBox(seed: number, size = 10): Cage {
  const random = numbers(seed);
  const points = CUBE.points.map(
    (at) => at.map((n) => size * (n / 2 - 0.5 + (random() - 0.5) / 5)) as unknown as Vec3,
  );
  const sharp = new Map(
    random() < 0.5
      ? [
          ['0 1', 1],
          ['1 3', 1],
        ]
      : [],
  );
  return { ...CUBE, points, sharp };
}

/** The second, turned inside out, is a hollow in the first. */
function withHollow(outer: Cage, inner: Cage): Cage {
  const first = outer.points.length;
  const turned = inner.faces.map(({ name, corners }) => ({
    name: `inner ${name}`,
    corners: [...corners].reverse().map((i) => first + i),
  }));
  const shifted = [...inner.sharp].map(([ends, sharpness]): [string, number] => {
    const [a, b] = ends.split(' ').map(Number) as [number, number];
    return [edgeKey(first + a, first + b), sharpness];
  });
  return {
    points: [...outer.points, ...inner.points],
    faces: [...outer.faces, ...turned],
    sharp: new Map([...outer.sharp, ...shifted]),
    fixed: outer.fixed,
  };
}

function laid(cage: Cage): LaidPatch[] {
  const fine = refined(refined(cage));
  return patchesOf(fine).map((patch, i) => ({ ...patch, corners: fine.faces[i]!.corners }));
}

/** Name and middle of each face, rounded to where it surely is the same. */
const places = ({ shape, faceNames }: NamedShape): string[] =>
  scope((keep) =>
    uniqueShapes({ occt, keep }, shape, 'TopAbs_FACE').map((face, i) => {
      const middle = areaCentroidOf(occt, face).map((n) => Math.round(n * 1e5) / 1e5 + 0);
      return `${faceNames[i]} ${middle.join(' ')}`;
    }),
  ).sort();

test.each([1, 2, 3])('a soft form is the same as if it were sewn: %i', (seed) => {
  const patches = laid(bentBox(seed));
  const closed = closedPatches(occt, patches)!;
  const other = scope((keep) =>
    sewn(
      { occt, keep },
      patches.map((one) => patchFace({ occt, keep }, one)),
      'The form',
    ),
  );
  const [is, was] = [closed, other].map(({ shape }) => measureShape(occt, shape)) as [
    ReturnType<typeof measureShape>,
    ReturnType<typeof measureShape>,
  ];
  expect(isSound(occt, closed.shape)).toBe(true);
  expect(is).toMatchObject({ closed: true, watertight: true, faces: 96, edges: 192, solids: 1 });
  expect(is.volume / was.volume).toBeCloseTo(1, 12);
  expect(is.area / was.area).toBeCloseTo(1, 9);
  expect(places(closed)).toEqual(places(other));
  for (const { shape } of [closed, other]) release(occt, shape);
});

test('a hollow stays one', () => {
  const patches = laid(withHollow(bentBox(4), bentBox(5, 3)));
  const closed = closedPatches(occt, patches)!;
  const [outer, inner] = [bentBox(4), bentBox(5, 3)].map((cage) => {
    const { shape } = closedPatches(occt, laid(cage))!;
    return measureShape(occt, shape).volume;
  }) as [number, number];
  const { volume, closed: isClosed, solids } = measureShape(occt, closed.shape);
  expect({ isClosed, solids }).toEqual({ isClosed: true, solids: 1 });
  expect(volume).toBeCloseTo(outer - inner, 9);
  expect(isSound(occt, closed.shape)).toBe(true);
});

test('patches that do not close are not passed off as a solid', () => {
  const patches = laid(bentBox(6));
  expect(closedPatches(occt, patches.slice(1))).toBeUndefined();
  const bent = patches.map((one, i) =>
    i > 0 ? one : { ...one, poles: one.poles.map(([x, y, z], k) => [x, y, k === 1 ? z + 1 : z] as const) },
  );
  expect(closedPatches(occt, bent)).toBeUndefined();
});
