import { project } from '../space/camera.ts';
import { AT_ORIGIN, poseOf } from '../space/pose.ts';
import type { Vec3 } from '../space/vector.ts';
import { BAY, boxShape, instance, looking } from '../snapping/shapes.fixture.ts';
import { snapScene } from '../snapping/scene.ts';
import type { Point, Region } from './outline.ts';
import { placesInRegion, type PlaceKind, type PlaceQuery } from './places.ts';

const plan = looking(0, 90);
const box = instance(boxShape([40, 20, 10]), 'a', AT_ORIGIN);
const seen = (point: Vec3): Point => {
  const [x, y] = project(plan, point);
  return [x, y];
};
/** From the lower left to the upper right corner, as given in the ground plane. */
const around = (min: Vec3, max: Vec3): Region => {
  const [a, b] = [seen(min), seen(max)];
  return { kind: 'rectangle', left: a[0], right: b[0], top: b[1], bottom: a[1] };
};
const taken = (kind: PlaceKind, region: Region, more: Partial<PlaceQuery> = {}): string[] =>
  placesInRegion({ instance: box, camera: plan, region, rule: 'enclosed', kind, ...more }).map(
    ({ at }) => at,
  );
const right = around([35, -5, 0], [45, 25, 0]);

test('corners: those within, whatever the rule', () => {
  const found = ['bottom&front&right', 'bottom&back&right', 'top&front&right', 'top&back&right'].sort();
  expect(taken('corners', right).sort()).toEqual(found);
  expect(taken('corners', right, { rule: 'touching' }).sort()).toEqual(found);
});

test('edges: wholly within, or met', () => {
  expect(taken('edges', right).sort()).toEqual(['back&right', 'bottom&right', 'front&right', 'top&right']);
  const met = taken('edges', right, { rule: 'touching' });
  expect(met).toHaveLength(8);
  expect(met).toContain('top&front');
  expect(met).not.toContain('front&left');
});

test('faces: edge-on ones too, and with “touching” what the region lies in', () => {
  expect(taken('faces', right)).toEqual(['right']);
  expect(taken('faces', right, { rule: 'touching' }).sort()).toEqual([
    'back',
    'bottom',
    'front',
    'right',
    'top',
  ]);
  expect(taken('faces', around([10, 5, 0], [12, 6, 0]), { rule: 'touching' }).sort()).toEqual([
    'bottom',
    'top',
  ]);
});

test('only what is seen: what other parts and the part itself hide is left', () => {
  const seenIn = snapScene([box]);
  expect(taken('corners', right, { seenIn }).sort()).toEqual(['top&back&right', 'top&front&right']);
  expect(taken('faces', around([10, 5, 0], [12, 6, 0]), { rule: 'touching', seenIn })).toEqual(['top']);
  expect(taken('edges', around([-5, -5, 0], [45, 25, 0]), { seenIn })).toContain('top&right');
  expect(taken('edges', around([-5, -5, 0], [45, 25, 0]), { seenIn })).not.toContain('bottom&right');
  const covered = snapScene([box, instance(boxShape([20, 40, 5]), 'b', poseOf([30, -10, 20], [0, 0, 0]))]);
  expect(taken('corners', right, { seenIn: covered })).toEqual([]);
});

test('a lasso with a bay does not enclose the edge that crosses the bay', () => {
  const corners = (points: readonly Vec3[]): Region => ({ kind: 'polygon', corners: points.map(seen) });
  expect(taken('edges', corners(BAY))).not.toContain('top&front');
  expect(taken('edges', corners(BAY.filter(([x]) => x !== 20)))).toContain('top&front');
});

test('edges come with a point of their own, by which they are told from others of the name', () => {
  const [found] = placesInRegion({
    instance: box,
    camera: plan,
    region: right,
    rule: 'enclosed',
    kind: 'edges',
  }).filter(({ at }) => at === 'top&right');
  expect(found!.near).toEqual([40, 10, 10]);
});
