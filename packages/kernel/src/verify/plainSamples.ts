/** Points of the faces of plain solids, by formula: what the kernel's facets would tell, at a hundredth of the cost. */
import type { Vec2, Vec3 } from '@kadrel/core';
import type { SolidContent } from '../content/content.ts';
import type { Sample } from '../facts/samples.ts';

type Spot = Omit<Sample, 'face'>;

/** @param faceNames in the kernel's order @returns points on the faces that are known by these names */
export function plainSamples(content: SolidContent, faceNames: readonly string[]): Sample[] {
  return faceNames.flatMap((name, face) => spotsOn(content, name).map((spot) => ({ ...spot, face })));
}

function spotsOn(content: SolidContent, name: string): Spot[] {
  switch (content.kind) {
    case 'box':
      return boxSpots(content.size, name);
    case 'sphere':
      return ballSpots(content.diameter / 2);
    case 'torus':
      return ringSpots(content.diameter / 2, content.thickness / 2);
    case 'prism':
      return prismSpots(content.corners, content.height, name);
    default:
      return roundSpots(content, name);
  }
}

/** Parts of the way across a face, none of which is a usual one, so that points seldom fall on what else is drawn. */
const PARTS = [0.113, 0.371, 0.687, 0.907];
const PAIRS: readonly Vec2[] = [
  [0.113, 0.137],
  [0.887, 0.121],
  [0.871, 0.893],
  [0.129, 0.877],
  [0.487, 0.531],
  [0.313, 0.641],
  [0.677, 0.343],
];
/** Round an axis, radians. */
const TURNS = Array.from({ length: 5 }, (_, i) => 0.37 + (i * 2 * Math.PI) / 5);

const SIDES: Readonly<Record<string, readonly [axis: 0 | 1 | 2, way: 1 | -1]>> = {
  left: [0, -1],
  right: [0, 1],
  front: [1, -1],
  back: [1, 1],
  bottom: [2, -1],
  top: [2, 1],
};

function boxSpots(size: Vec3, name: string): Spot[] {
  const side = SIDES[name];
  if (!side) return [];
  const [axis, way] = side;
  const outward = [0, 1, 2].map((i) => (i === axis ? way : 0)) as unknown as Vec3;
  return PAIRS.map(([u, v]) => {
    const across = [u, v];
    const point = size.map((n, i) => (i === axis ? (way > 0 ? n : 0) : n * across.shift()!));
    return { point: point as unknown as Vec3, outward };
  });
}

const ballSpots = (radius: number): Spot[] =>
  [-0.83, -0.31, 0.17, 0.61, 0.93].flatMap((z, row) =>
    TURNS.slice(0, 4).map((turn) => {
      const [flat, angle] = [Math.sqrt(1 - z * z), turn + row];
      const outward: Vec3 = [flat * Math.cos(angle), flat * Math.sin(angle), z];
      return { point: outward.map((n) => n * radius) as unknown as Vec3, outward };
    }),
  );

const ringSpots = (ring: number, thin: number): Spot[] =>
  TURNS.flatMap((turn, row) =>
    TURNS.map((round) => {
      const [c, s] = [Math.cos(turn), Math.sin(turn)];
      const [out, up] = [Math.cos(round + row), Math.sin(round + row)];
      const reach = ring + thin * out;
      return { point: [reach * c, reach * s, thin * up], outward: [out * c, out * s, up] };
    }),
  );

type Corners = Extract<SolidContent, { kind: 'prism' }>['corners'];
function prismSpots(corners: Corners, height: number, name: string): Spot[] {
  if (name === 'top' || name === 'bottom') {
    const [z, way] = name === 'top' ? [height, 1] : [0, -1];
    // A prism's outline is convex: points between its middle and its corners lie within.
    const spots = corners.map(([x, y]): Spot => ({ point: [0.71 * x, 0.71 * y, z], outward: [0, 0, way] }));
    return [{ point: [0, 0, z], outward: [0, 0, way] }, ...spots];
  }
  // Side 1 lies between the last corner and the first.
  const side = Number(name.replace('side', '')) - 2;
  const [a, b] = [corners.at(side)!, corners[(side + 1 + corners.length) % corners.length]!];
  const [x, y] = [b[0] - a[0], b[1] - a[1]];
  const size = Math.hypot(x, y);
  return PAIRS.map(([u, v]) => ({
    point: [a[0] + u * x, a[1] + u * y, v * height],
    outward: [y / size, -x / size, 0],
  }));
}

function roundSpots(
  content: Extract<SolidContent, { kind: 'cylinder' | 'cone' | 'tube' }>,
  name: string,
): Spot[] {
  const { height } = content;
  const radius = content.diameter / 2;
  const top = content.kind === 'cone' ? content.top / 2 : radius;
  const bore = content.kind === 'tube' ? content.bore / 2 : 0;
  if (name === 'side') return flankSpots([radius, 0], [top, height]);
  if (name === 'bore') return flankSpots([bore, height], [bore, 0]);
  if (name === 'bottom') return flankSpots([bore, 0], [radius, 0]);
  return name === 'top' ? flankSpots([top, height], [bore, height]) : [];
}

/** What a straight line beside the axis sweeps, solid to its left: from its start to its end, radius and height. */
function flankSpots([r, z]: Vec2, [toR, toZ]: Vec2): Spot[] {
  const size = Math.hypot(toR - r, toZ - z);
  const [out, up] = [(toZ - z) / size, (r - toR) / size];
  return PARTS.flatMap((part, row) =>
    TURNS.map((turn): Spot => {
      const [c, s] = [Math.cos(turn + row), Math.sin(turn + row)];
      const reach = r + part * (toR - r);
      return {
        point: [reach * c, reach * s, z + part * (toZ - z)],
        outward: [out * c, out * s, up],
      };
    }),
  );
}
