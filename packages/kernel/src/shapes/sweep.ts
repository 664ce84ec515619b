/** A section carried along a path. */
import {
  AT_ORIGIN,
  endOf,
  fromColumns,
  startOf,
  unit2,
  velocityAt,
  type Path,
  type Pose,
  type Vec3,
} from '@kadrel/core';
import { BuildError, progressRange, scope, type Occt } from '../occt/occt.ts';
import type { BodyContent } from '../bodies.ts';
import { buildCombination } from './combine.ts';
import { requireBodies } from './compound.ts';
import { loopsOf, placedWire } from './loft.ts';
import type { NamedShape } from './named.ts';

type Sweep = Extract<BodyContent, { kind: 'sweep' }>;

/**
 * In the frame of the path: the origin of the section runs along it, its X to the right of the way, its Y out of the plane of
 * the path. Faces: start, end, sides; those of a hollow after `hollow.`. Throws BuildError.
 */
export function buildSweep(occt: Occt, { paths, section, corners }: Sweep): NamedShape {
  const [spine, ...others] = paths;
  if (!spine || others.length > 0)
    throw new BuildError(
      `The path consists of ${paths.length} pieces.`,
      'A path is one curve, or several end to end.',
    );
  const { outer, inner } = loopsOf({ paths: section });
  const body = pipe(occt, spine, outer, corners);
  if (!inner) return body;
  const hollow = pipe(occt, spine, inner, corners);
  try {
    return buildCombination(occt, 'subtract', [
      { ...body, tag: '' },
      { ...hollow, tag: 'hollow' },
    ]);
  } finally {
    body.shape.delete();
    hollow.shape.delete();
  }
}

/** Where the section stands at the start of the path. */
function startPose(spine: Path): Pose {
  const first = spine.curves[0]!.curve;
  const [x, y] = startOf(first);
  const [u, v] = unit2(velocityAt(first, 0));
  const right: Vec3 = [v, -u, 0];
  return { turn: fromColumns(right, [0, 0, 1], [-u, -v, 0]), shift: [x, y, 0] };
}

function pipe(occt: Occt, spine: Path, section: Path, corners: Sweep['corners']): NamedShape {
  return scope((keep) => {
    const { wire } = placedWire(occt, spine, AT_ORIGIN, keep);
    const profile = placedWire(occt, section, startPose(spine), keep);
    const builder = keep(new occt.BRepOffsetAPI_MakePipeShell(wire));
    builder.SetMode(keep(new occt.gp_Dir(0, 0, 1)));
    builder.SetTransitionMode(
      corners === 'square' ? 'BRepBuilderAPI_RightCorner' : 'BRepBuilderAPI_RoundCorner',
    );
    builder.Add(profile.wire, false, false);
    builder.Build(progressRange(occt, keep));
    if (!builder.IsDone() || !builder.MakeSolid())
      throw new BuildError(
        'The section cannot be carried along this path.',
        'Make the section smaller, or the bends of the path wider.',
      );
    const shape = requireBodies(occt, builder.Shape(), 'The swept body');
    const { faceNames } = sweptNames(occt, shape, spine);
    return { shape, faceNames };
  });
}

/** The ends are told by lying square to the path where it begins and ends. */
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
        const isSquare = Math.abs(Math.abs(normal.X() * u + normal.Y() * v) - 1) < 1e-9;
        return isSquare && Math.abs((at.X() - x) * u + (at.Y() - y) * v) < 1e-6;
      });
      faceNames.push(['start', 'end'][found] ?? 'side');
    }
    return { faceNames };
  });
}
