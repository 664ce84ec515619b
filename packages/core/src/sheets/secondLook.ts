/**
 * A second opinion on hidden lines: what rays over the facets say is in sight for certain, and was taken for hidden, is drawn. The
 * kernel hides lines that lie in one line with those of another solid nearer by. Everything in the frame of the view, mm.
 */
import { type Curve, type DrawnPath } from '../curves/curve.ts';
import { boxOfCurves, type Box2 } from '../curves/flattened.ts';
import { joined } from '../curves/joined.ts';
import { nearestOn } from '../curves/meetings.ts';
import type { DrawnLine } from '../questions/question.ts';
import { castOnScene } from '../snapping/raycast.ts';
import type { SnapScene } from '../snapping/scene.ts';
import { add, scale, type Vec3 } from '../space/vector.ts';
import { BESIDE, asideOf, waysOf, type Way } from './edgeWays.ts';

type Lines = Readonly<Record<DrawnLine, readonly DrawnPath[]>>;

/** Points at which an edge is looked at. */
const SAMPLES = 11;
/** Halvings that find where a piece comes into sight: then its end is given to a ten-thousandth of an edge’s length over the samples. */
const HALVINGS = 20;
/** An edge this near to a drawn line lies on it, mm. */
const ON_LINE_MM = 1e-5;
const UP: Vec3 = [0, 0, 1];

/** Takes lines out of hiding that nothing hides. */
export function withSecondLook(lines: Lines, scene: SnapScene): Lines {
  const drawn = new Drawn([...lines.visible, ...lines.smooth]);
  const hidden = new Drawn(lines.hidden);
  const look = new Look(scene);
  const found = scene.instances.flatMap((instance) => {
    return waysOf(instance).flatMap((way) => {
      const isMissing = (t: number) => {
        const point = way(t);
        return !drawn.has(point) && hidden.has(point) && look.sees(point);
      };
      return missingPieces(way, isMissing);
    });
  });
  return found.length === 0 ? lines : { ...lines, visible: [...lines.visible, ...joined(found)] };
}

/** Straight pieces of an edge where something holds. */
function missingPieces(way: Way, holds: (t: number) => boolean): Curve[] {
  const at = (i: number) => (i + 0.5) / SAMPLES;
  const found = Array.from({ length: SAMPLES }, (_, i) => holds(at(i)));
  return found.flatMap((isHere, i): Curve[] => {
    if (!isHere || found[i - 1]) return [];
    let last = i;
    while (found[last + 1]) last += 1;
    const from = i === 0 ? ending(holds, at(0), 0) : ending(holds, at(i), at(i - 1));
    const to = last === SAMPLES - 1 ? ending(holds, at(last), 1) : ending(holds, at(last), at(last + 1));
    return polyline(way, from, to);
  });
}

/** The last parameter from one at which it holds towards another. */
function ending(holds: (t: number) => boolean, inside: number, outside: number): number {
  if (holds(outside)) return outside;
  let [low, high] = [inside, outside];
  for (let i = 0; i < HALVINGS; i++) {
    const middle = (low + high) / 2;
    if (holds(middle)) low = middle;
    else high = middle;
  }
  return low;
}

/** Chords of a piece; one where it is straight on the picture. */
const CHORDS = 24;
function polyline(way: Way, from: number, to: number): Curve[] {
  const points = Array.from({ length: CHORDS + 1 }, (_, i) => way(from + ((to - from) * i) / CHORDS));
  const flat = points.map(([x, y]): readonly [number, number] => [x, y]);
  const [first, last] = [flat[0]!, flat.at(-1)!];
  const whole: Curve = { kind: 'line', from: first, to: last };
  const isStraight = flat.every((point) => nearestOn(whole, point).distance < ON_LINE_MM);
  if (isStraight) return [whole];
  return flat.slice(1).map((point, i) => ({ kind: 'line', from: flat[i]!, to: point }));
}

/** Lines that are drawn, to ask what lies on them. */
class Drawn {
  private readonly curves: readonly { readonly curve: Curve; readonly box: Box2 }[];

  constructor(paths: readonly DrawnPath[]) {
    this.curves = paths.flatMap(({ curves }) =>
      curves.map((curve) => ({ curve, box: boxOfCurves([curve])! })),
    );
  }

  has([x, y]: Vec3): boolean {
    return this.curves.some(
      ({ curve, box: { min, max } }) =>
        x > min[0] - ON_LINE_MM &&
        x < max[0] + ON_LINE_MM &&
        y > min[1] - ON_LINE_MM &&
        y < max[1] + ON_LINE_MM &&
        nearestOn(curve, [x, y]).distance < ON_LINE_MM,
    );
  }
}

/** Lines of sight from edges. */
class Look {
  private readonly aside: number;

  constructor(private readonly scene: SnapScene) {
    this.aside = asideOf(scene);
  }

  /** For certain: nothing is before it, nor before what is beside it. */
  sees(point: Vec3): boolean {
    const start = add(point, scale(UP, 4 * this.aside));
    return BESIDE.every(([x, y]) => {
      const from = add(start, [x * this.aside, y * this.aside, 0]);
      return !castOnScene(this.scene, { from, direction: UP }, Infinity, () => true);
    });
  }
}
