/** Points of whole surfaces where they can reach farthest along a direction. */
import { add, dot, length, scale, subtract, unit, type Vec3 } from '@kadrel/core';
import { read, type Coordinates, type Keep, type Occt } from '../occt/occt.ts';
import { ringOf } from './ring.ts';

type Surface = InstanceType<Occt['BRepAdaptor_Surface']>;
/** Points of a whole surface where it can reach farthest. */
type Farthest = (way: Vec3) => readonly Vec3[];

export function onBall(surface: Surface, keep: Keep): Farthest {
  const ball = keep(surface.Sphere());
  const [centre, radius] = [read(ball.Location(), keep), ball.Radius()];
  return (way) => [add(centre, scale(way, radius))];
}

/** Points round the ring that are tried where it lies flat across the way, so that a whole circle reaches as far. */
const ROUND = 64;

export function onRing(surface: Surface, keep: Keep): Farthest {
  const { centre, x, y, axis, ring, thin } = ringOf(surface, keep);
  return (way) => {
    const flat = subtract(way, scale(axis, dot(way, axis)));
    const tops = length(flat) > 1e-9 ? [unit(flat)] : circleOf(x, y);
    return tops.map((out) => add(add(centre, scale(out, ring)), scale(way, thin)));
  };
}

const circleOf = (x: Vec3, y: Vec3): Vec3[] =>
  Array.from({ length: ROUND }, (_, i) => {
    const angle = (2 * Math.PI * (i + 0.5)) / ROUND;
    return add(scale(x, Math.cos(angle)), scale(y, Math.sin(angle)));
  });

/** Points each way that a free surface is looked at first. */
const LOOKS = 16;

/** Newton's steps from where a net of points reaches farther than its neighbours. */
export function onFree(surface: Surface, keep: Keep): Farthest {
  const [u0, u1] = [surface.FirstUParameter(), surface.LastUParameter()];
  const [v0, v1] = [surface.FirstVParameter(), surface.LastVParameter()];
  const parameters = (i: number, j: number): [number, number] => [
    u0 + ((u1 - u0) * i) / LOOKS,
    v0 + ((v1 - v0) * j) / LOOKS,
  ];
  const lookAll = () =>
    Array.from({ length: LOOKS + 1 }, (_, i) =>
      Array.from({ length: LOOKS + 1 }, (_unused, j) =>
        read(surface.EvalD0(...parameters(i, j)) as unknown as Coordinates, keep),
      ),
    );
  let net: Vec3[][] | undefined;
  return (way) => {
    const points = (net ??= lookAll());
    const height = (i: number, j: number) => {
      const row = points[i];
      return row?.[j] === undefined ? -Infinity : dot(row[j], way);
    };
    const found: Vec3[] = [];
    for (let i = 0; i <= LOOKS; i++)
      for (let j = 0; j <= LOOKS; j++) {
        const own = height(i, j);
        const isTop = [-1, 0, 1].every((di) => [-1, 0, 1].every((dj) => height(i + di, j + dj) <= own));
        if (isTop) found.push(climbed(surface, parameters(i, j), way, keep));
      }
    return found;
  };
}

/** The top of a free surface near parameters, by Newton's method; where that leads downward, the point begun at. */
function climbed(surface: Surface, [u0, v0]: readonly [number, number], way: Vec3, keep: Keep): Vec3 {
  let [u, v] = [u0, v0];
  const [lowU, highU] = [surface.FirstUParameter(), surface.LastUParameter()];
  const [lowV, highV] = [surface.FirstVParameter(), surface.LastVParameter()];
  let best = read(surface.EvalD0(u, v), keep);
  for (let round = 0; round < 30; round++) {
    const d = surface.EvalD2(u, v) as unknown as Record<
      'Point' | 'D1U' | 'D1V' | 'D2U' | 'D2V' | 'D2UV',
      Coordinates
    >;
    const along = (one: Coordinates) => dot(read(one, keep), way);
    const [gu, gv, huu, hvv, huv] = [along(d.D1U), along(d.D1V), along(d.D2U), along(d.D2V), along(d.D2UV)];
    const point = read(d.Point, keep);
    if (dot(point, way) > dot(best, way)) best = point;
    const size = huu * hvv - huv * huv;
    if (!(size > 0 && huu < 0)) break;
    const [stepU, stepV] = [(huv * gv - hvv * gu) / size, (huv * gu - huu * gv) / size];
    const [nextU, nextV] = [
      Math.min(highU, Math.max(lowU, u + stepU)),
      Math.min(highV, Math.max(lowV, v + stepV)),
    ];
    if (nextU === u && nextV === v) break;
    [u, v] = [nextU, nextV];
  }
  return best;
}
