/** A section carried along a path. */
import {
  AT_ORIGIN,
  carryCurve,
  cosDegrees,
  cross,
  curveLength,
  dot,
  endOf,
  faultOf,
  fromColumns,
  length,
  partAtLength,
  pointAt,
  sinDegrees,
  startOf,
  subtract,
  unit,
  unit2,
  velocityAt,
  type Affine2,
  type Path,
  type Pose,
  type Vec2,
  type Vec3,
} from '@kadrel/core';
import { BuildError, progressRange, scope, type Occt } from '../../occt/occt.ts';
import type { BodyContent } from '../../content/bodies.ts';
import { combineShapes } from '../../booleans/operation.ts';
import { requireBodies } from '../compound.ts';
import { placedWire } from '../../occt/edges.ts';
import { loopsOf, through } from './loft.ts';
import type { NamedShape } from '../../naming/named.ts';

type Sweep = Extract<BodyContent, { kind: 'sweep' }>;

/**
 * In the frame of the path: the origin of the section runs along it, its X to the right of the way, its Y out of the plane of
 * the path, or in the direction that is given. Faces: start, end, sides; those of a hollow after `hollow.`. Throws BuildError.
 */
export function buildSweep(occt: Occt, content: Sweep): NamedShape {
  const [spine, ...others] = content.paths;
  if (!spine || others.length > 0)
    throw new BuildError(faultOf('sweep.path-pieces', { pieces: content.paths.length }));
  const { outer, inner } = loopsOf({ paths: content.section });
  const carried = (section: Path) =>
    content.twist === 0 && content.scale === 1
      ? pipe(occt, { spine, section }, content)
      : changing(occt, { spine, section }, content);
  if (content.ends === 'open' && inner) throw new BuildError(faultOf('sweep.hollow-surface', {}));
  const body = carried(outer);
  if (!inner) return body;
  const hollow = carried(inner);
  try {
    return combineShapes(occt, 'subtract', [
      { ...body, tag: '' },
      { ...hollow, tag: 'hollow' },
    ]);
  } finally {
    body.shape.delete();
    hollow.shape.delete();
  }
}

/** A way and the direction of Y that come nearer to each other than this (sine) leave no room for a section. */
const ALONG_SINE = 1e-6;

/** Where the section stands at a point of the path: Y in the upright direction, X to the right of the way. */
function standing([x, y]: Vec2, way: Vec2, up: Vec3): Pose {
  const [u, v] = unit2(way);
  const upright = unit(up);
  const right = cross([u, v, 0], upright);
  if (length(right) < ALONG_SINE) throw new BuildError(faultOf('sweep.upright-along', {}), [[x, y, 0]]);
  const across = unit(right);
  return { turn: fromColumns(across, upright, cross(across, upright)), shift: [x, y, 0] };
}

function pipe(
  occt: Occt,
  { spine, section }: { readonly spine: Path; readonly section: Path },
  { corners, up, ends }: Sweep,
): NamedShape {
  return scope((keep) => {
    const first = spine.curves[0]!.curve;
    const { wire } = placedWire({ occt, keep }, spine, AT_ORIGIN);
    const profile = placedWire({ occt, keep }, section, standing(startOf(first), velocityAt(first, 0), up));
    const builder = keep(new occt.BRepOffsetAPI_MakePipeShell(wire));
    builder.SetMode(keep(new occt.gp_Dir(...up)));
    builder.SetTransitionMode(
      corners === 'square' ? 'BRepBuilderAPI_RightCorner' : 'BRepBuilderAPI_RoundCorner',
    );
    builder.Add(profile.wire, false, false);
    builder.Build(progressRange({ occt, keep }));
    if (!builder.IsDone() || (ends === 'capped' && !builder.MakeSolid()))
      throw new BuildError(faultOf('sweep.bends', {}));
    const made = builder.Shape();
    const shape = ends === 'open' ? made : requireBodies(occt, made, 'The swept body');
    const { faceNames } = sweptNames(occt, shape, spine);
    return { shape, faceNames };
  });
}

/** A section for every so many degrees that it turns, by itself and with the path: the volume is then right to 1e-7. */
const DEGREES_PER_SECTION = 6;
const FEWEST_SECTIONS = 2;
const MAX_SECTIONS = 400;
/** Curves of the path that turn by more than this (degrees) where they meet make a corner. */
const SMOOTH_DEGREES = 1e-4;

/** A section that turns about the path, or grows: a loft through many of them, by the length walked. */
function changing(
  occt: Occt,
  { spine, section }: { readonly spine: Path; readonly section: Path },
  { up, twist, scale: end, ends }: Sweep,
): NamedShape {
  if (spine.closed) throw new BuildError(faultOf('sweep.closed-turning', {}));
  const walked = stationsOf(spine, twist);
  const sections = walked.map(({ at, way, share }) => ({
    pose: standing(at, way, up),
    path: turned(section, twist * share, 1 + (end - 1) * share),
  }));
  return through(occt, sections, {
    flanks: sections.length === 2 ? 'ruled' : 'smooth',
    closed: false,
    ends,
    names: ['start', 'end'],
  });
}

interface Station {
  readonly at: Vec2;
  readonly way: Vec2;
  /** Of the length of the path. */
  readonly share: number;
}

function stationsOf({ curves }: Path, twist: number): Station[] {
  const all = curves.map(({ curve }) => curve);
  const lengths = all.map(curveLength);
  const whole = lengths.reduce((a, b) => a + b, 0);
  const turnOf = (a: Vec2, b: Vec2) =>
    (Math.abs(Math.atan2(a[0] * b[1] - a[1] * b[0], a[0] * b[0] + a[1] * b[1])) * 180) / Math.PI;
  all.forEach((curve, i) => {
    if (i > 0 && turnOf(velocityAt(all[i - 1]!, 1), velocityAt(curve, 0)) > SMOOTH_DEGREES)
      throw new BuildError(faultOf('sweep.corner-turning', {}), [[...startOf(curve), 0]]);
  });
  const stations: Station[] = [];
  let walked = 0;
  all.forEach((curve, i) => {
    const bends = [0, 0.25, 0.5, 0.75, 1].map((part) => velocityAt(curve, part));
    const bend = bends.slice(1).reduce((sum, way, k) => sum + turnOf(bends[k]!, way), 0);
    const steps = Math.min(
      MAX_SECTIONS,
      Math.max(
        all.length === 1 && bend === 0 && twist === 0 ? 1 : FEWEST_SECTIONS,
        Math.ceil((bend + (Math.abs(twist) * lengths[i]!) / whole) / DEGREES_PER_SECTION),
      ),
    );
    for (let k = i === 0 ? 0 : 1; k <= steps; k++) {
      const part = partAtLength(curve, (lengths[i]! * k) / steps) ?? 1;
      const share = (walked + (lengths[i]! * k) / steps) / whole;
      stations.push({ at: pointAt(curve, part), way: velocityAt(curve, part), share });
    }
    walked += lengths[i]!;
  });
  return stations;
}

/** The section turned about its origin, and larger. A right-handed twist about the way turns X away from Y: Z looks back. */
function turned({ closed, curves }: Path, twist: number, size: number): Path {
  const [c, s] = [cosDegrees(twist), -sinDegrees(twist)];
  const map: Affine2 = { x: [c * size, s * size], y: [-s * size, c * size], shift: [0, 0] };
  return { closed, curves: curves.map(({ name, curve }) => ({ name, curve: carryCurve(map, curve) })) };
}

/** The ends are determined by lying where the path begins and ends, across it. */
function sweptNames(occt: Occt, shape: NamedShape['shape'], spine: Path): { faceNames: string[] } {
  return scope((keep) => {
    const explorer = keep(new occt.TopExp_Explorer(shape, 'TopAbs_FACE', 'TopAbs_SHAPE'));
    const ends = [startOf(spine.curves[0]!.curve), endOf(spine.curves.at(-1)!.curve)];
    const ways = [velocityAt(spine.curves[0]!.curve, 0), velocityAt(spine.curves.at(-1)!.curve, 1)];
    const faceNames: string[] = [];
    for (; explorer.More(); explorer.Next()) {
      const surface = keep(
        new occt.BRepAdaptor_Surface(keep(occt.TopoDS.Face(keep(explorer.Current()))), true),
      );
      if (spine.closed || (surface.GetType() as unknown as string) !== 'GeomAbs_Plane') {
        faceNames.push('side');
        continue;
      }
      const plane = keep(surface.Plane());
      const at = keep(plane.Location());
      const normal = keep(keep(plane.Axis()).Direction());
      const found = ends.findIndex(([x, y], i) => {
        const [u, v] = unit2(ways[i]!);
        const across: Vec3 = [normal.X(), normal.Y(), normal.Z()];
        const isAcross = Math.abs(dot(across, [u, v, 0])) > ACROSS;
        return isAcross && Math.abs(dot(across, subtract([at.X(), at.Y(), at.Z()], [x, y, 0]))) < 1e-6;
      });
      faceNames.push(['start', 'end'][found] ?? 'side');
    }
    return { faceNames };
  });
}
/** A face through an end of the path whose normal is nearer to the way than this (cosine) is an end of the body. */
const ACROSS = 0.05;
