/** Which solids of a view go into one another, as far as their edges tell: hidden lines are drawn for solids that do not. */
import { isWithinSolid } from '../snapping/raycast.ts';
import type { SnapInstance, SnapScene } from '../snapping/scene.ts';
import { boxesMeet, carryBox, type Box } from '../space/box.ts';
import { add, scale, type Vec3 } from '../space/vector.ts';
import { boxOfShape } from '../snapping/scene.ts';
import { asideOf, waysOf } from './edgeWays.ts';

/** Points at which an edge is asked whether it is within another solid. */
const SAMPLES = 7;

/** Pairs of parts, each once. A solid that only touches another does not count. */
export function overlappingIn(scene: SnapScene): [string, string][] {
  const aside = asideOf(scene);
  const boxes = scene.instances.map(({ pose, shape }) => shrunk(carryBox(pose, boxOfShape(shape)), aside));
  const found = new Map<string, [string, string]>();
  scene.instances.forEach((one, i) => {
    const near = scene.instances.filter((_, k) => k !== i && boxesMeet(boxes[i]!, boxes[k]!));
    const points = near.length === 0 ? [] : pointsOnEdges(one);
    for (const other of near) {
      const pair = [one.part, other.part].sort() as [string, string];
      if (one.part === other.part || found.has(pair.join())) continue;
      if (points.some((point) => isWithin(other, point, aside))) found.set(pair.join(), pair);
    }
  });
  return [...found.values()];
}

const shrunk = ({ min, max }: Box, by: number): Box => ({
  min: min.map((n) => n + by) as unknown as Vec3,
  max: max.map((n) => n - by) as unknown as Vec3,
});

const pointsOnEdges = (instance: SnapInstance): Vec3[] =>
  waysOf(instance).flatMap((way) => Array.from({ length: SAMPLES }, (_, i) => way((i + 0.5) / SAMPLES)));

/** On all sides of a point, in directions that faces seldom run along. */
const ROUND: readonly Vec3[] = [-1, 1].flatMap((x) =>
  [-1, 1].flatMap((y) => [-1, 1].map((z): Vec3 => [0.41 * x, 0.57 * y, 0.71 * z])),
);

/** For certain: what is round the point is within too. */
const isWithin = (instance: SnapInstance, point: Vec3, aside: number): boolean =>
  ROUND.every((way) => isWithinSolid(instance, add(point, scale(way, aside))));
