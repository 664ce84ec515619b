import fc from 'fast-check';
import { cosDegrees, sinDegrees, tanDegrees } from './angle.ts';
import { carryBox, boxPoint } from './box.ts';
import { cameraOf, fitted, ISOMETRIC_ALTITUDE, project, rayThrough, type ViewState } from './camera.ts';
import {
  carry,
  carryBack,
  chain,
  degreesOfTurn,
  inverse,
  isQuarterTurn,
  poseOf,
  turnOfDegrees,
} from './pose.ts';
import { roundLength } from './rounding.ts';
import { nearestOnLine, pointOnRay } from './plane.ts';
import { distance, length, type Vec3 } from './vector.ts';

const coordinate = fc.double({ min: -1000, max: 1000, noNaN: true });
const point = fc.tuple(coordinate, coordinate, coordinate);
const angle = fc.double({ min: -400, max: 400, noNaN: true });

describe('degrees', () => {
  test('are exact at quarter turns and where the sine or cosine is a half', () => {
    expect([0, 90, 180, 270, 360, -90].map(sinDegrees)).toEqual([0, 1, 0, -1, 0, -1]);
    expect([0, 90, 180, 270, 450].map(cosDegrees)).toEqual([1, 0, -1, 0, 0]);
    expect([30, 150, 210, 330].map(sinDegrees)).toEqual([0.5, 0.5, -0.5, -0.5]);
    expect([60, 300, 120, 240, -60].map(cosDegrees)).toEqual([0.5, 0.5, -0.5, -0.5, 0.5]);
    expect([tanDegrees(45), tanDegrees(-45), tanDegrees(0)]).toEqual([1, -1, 0]);
  });
  test('agree with the library elsewhere', () =>
    fc.assert(
      fc.property(angle, (a) => {
        expect(sinDegrees(a)).toBeCloseTo(Math.sin((a * Math.PI) / 180), 13);
        expect(cosDegrees(a)).toBeCloseTo(Math.cos((a * Math.PI) / 180), 13);
        expect(sinDegrees(a) + sinDegrees(-a)).toBeCloseTo(0, 14);
      }),
    ));
});

describe('poses', () => {
  test('quarter turns move coordinates without noise', () => {
    const pose = poseOf([1, 2, 3], [90, 0, 90]);
    expect(isQuarterTurn(pose.turn)).toBe(true);
    expect(carry(pose, [0.1, 0.2, 0.3])).toEqual([1.3, 2.1, 3.2]);
  });
  test('carry there and back, and chain as they should', () =>
    fc.assert(
      fc.property(
        point,
        fc.tuple(angle, angle, angle),
        point,
        fc.tuple(angle, angle, angle),
        point,
        (o1, t1, o2, t2, p) => {
          const [a, b] = [poseOf(o1, t1), poseOf(o2, t2)];
          expect(distance(carryBack(a, carry(a, p)), p)).toBeLessThan(1e-9);
          expect(distance(carry(chain(a, b), p), carry(a, carry(b, p)))).toBeLessThan(1e-9);
          expect(distance(carry(chain(inverse(a), a), p), p)).toBeLessThan(1e-9);
        },
      ),
    ));
  test('degrees of a turn give the same turn', () =>
    fc.assert(
      fc.property(fc.tuple(angle, angle, angle), (turn) => {
        const there = turnOfDegrees(turn);
        turnOfDegrees(degreesOfTurn(there)).forEach((n, i) => expect(n).toBeCloseTo(there[i]!, 6));
      }),
    ));
  test('a turned box is the box round its corners', () =>
    expect(carryBox(poseOf([0, 0, 0], [0, 0, 90]), { min: [0, 0, 0], max: [2, 1, 3] })).toEqual({
      min: [-1, 0, 0],
      max: [0, 2, 3],
    }));
});

describe('lengths', () => {
  test('there and back return the same bits on the decimal grid', () =>
    fc.assert(
      fc.property(fc.integer({ min: -1e8, max: 1e8 }), fc.integer({ min: -1e8, max: 1e8 }), (a, b) => {
        const [start, by] = [roundLength(a / 1e4), roundLength(b / 1e4)];
        expect(roundLength(roundLength(start + by) - by)).toBe(start);
      }),
    ));
  test('a box has 27 points', () =>
    expect(boxPoint({ min: [0, 0, 0], max: [2, 4, 6] }, [0, 1, -1])).toEqual([1, 4, 0]));
});

describe('cameras', () => {
  const home: ViewState = {
    target: [10, 20, 30],
    bearing: 30,
    altitude: 35,
    height: 500,
    projection: 'perspective',
  };
  test('plan looks down with Y up, front looks along Y', () => {
    const plan = cameraOf({ ...home, bearing: 0, altitude: 90, projection: 'parallel' }, 800, 600);
    expect(plan.up).toEqual([-0, 1, 0]);
    expect(project(plan, [10, 120, 0])[1]).toBeCloseTo(300 - 120, 9);
    const front = cameraOf({ ...home, bearing: 0, altitude: 0 }, 800, 600);
    expect(front.toward).toEqual([0, -1, 0]);
  });
  test('the three axes look equally long in an isometric view', () => {
    // Source: ISO 5456-3, isometric axonometry.
    const view = cameraOf(
      { ...home, target: [0, 0, 0], bearing: 45, altitude: ISOMETRIC_ALTITUDE, projection: 'parallel' },
      800,
      600,
    );
    const seen = (
      [
        [1, 0, 0],
        [0, 1, 0],
        [0, 0, 1],
      ] as Vec3[]
    ).map((axis) => {
      const [x, y] = project(view, axis);
      return Math.hypot(x - 400, y - 300);
    });
    expect(seen[0]).toBeCloseTo(seen[1]!, 9);
    expect(seen[1]).toBeCloseTo(seen[2]!, 9);
  });
  test('the ray through a pixel passes the point that falls on it', () =>
    fc.assert(
      fc.property(
        point,
        angle,
        fc.double({ min: -90, max: 90, noNaN: true }),
        fc.constantFrom('perspective', 'parallel'),
        (p, bearing, altitude, projection) => {
          const camera = cameraOf(
            { ...home, height: 3000, bearing, altitude, projection: projection },
            800,
            600,
          );
          const [x, y, depth] = project(camera, p);
          fc.pre(depth > 100);
          const ray = rayThrough(camera, x, y);
          const along = nearestOnLine(ray.from, ray.direction, { from: p, direction: [0.36, 0.48, 0.8] });
          fc.pre(along !== undefined);
          expect(length(ray.direction)).toBeCloseTo(1, 12);
          expect(distance(pointOnRay(ray, along), p)).toBeLessThan(1e-3);
        },
      ),
    ));
  test('a fitted box lies wholly in the picture', () =>
    fc.assert(
      fc.property(point, point, angle, (a, b, bearing) => {
        const box = {
          min: a.map((n, i) => Math.min(n, b[i]!)) as unknown as Vec3,
          max: a.map((n, i) => Math.max(n, b[i]!) + 1) as unknown as Vec3,
        };
        const camera = cameraOf(fitted({ ...home, bearing }, box, 4 / 3), 800, 600);
        for (const corner of [box.min, box.max]) {
          const [x, y] = project(camera, corner);
          expect(x >= 0 && x <= 800 && y >= 0 && y <= 600).toBe(true);
        }
      }),
    ));
});
