/** Outlines that the kernel finds: beside drawn ones, and where a plane meets a solid. */
import {
  areClear,
  boxSize,
  cornersOf,
  faultOf,
  filledArea,
  namedPaths,
  offsetOutlines,
  parallelPath,
  pathArea,
  type DrawnPath,
  type Path,
} from '@kadrel/core';
import { BuildError, occurrences, progressRange, scope, type Occt, type TopoDS_Shape } from '../occt/occt.ts';
import { pathsOfEdges } from '../occt/curves.ts';
import { edgesOfPath, wireOf } from '../occt/edges.ts';
import { merged, splitRegions } from '../build/bodies/regions.ts';
import { exactBox } from '../facts/extent.ts';
import { linesSeen } from './hiddenLines.ts';
import { heightsAt, meshShape } from '../facts/mesh.ts';

/**
 * Parallels of outlines at a distance: outward of closed ones, to the left of open ones; less than zero is the other way.
 * Throws BuildError.
 */
export function parallelsOf(
  occt: Occt,
  paths: readonly Path[],
  { by, corners }: { readonly by: number; readonly corners: 'round' | 'square' },
): DrawnPath[] {
  const closed = paths.filter((path) => path.closed);
  const open = paths.filter((path) => !path.closed);
  const beside = closed.length > 0 ? besideClosed(occt, closed, { by, corners }) : [];
  const found = [...beside, ...open.flatMap((path) => parallelOf(occt, path, { by, corners }))];
  if (found.length === 0) throw noRoom(by);
  return found;
}

const noRoom = (by: number) => new BuildError(faultOf('outline.no-room', { by: Math.abs(by) }));

/** Closed outlines keep their holes; what formulas do not tell is left to the kernel, one outline by itself. */
function besideClosed(
  occt: Occt,
  paths: readonly Path[],
  { by, corners }: { readonly by: number; readonly corners: 'round' | 'square' },
): DrawnPath[] {
  const [only] = paths;
  if (paths.length === 1) {
    const exact = exactParallel(only!, by, corners);
    if (exact) return [exact];
  }
  const whole = offsetOutlines(paths, by, corners);
  if (whole) return whole;
  if (paths.length > 1 || !areClear(paths)) throw new BuildError(faultOf('outline.not-followed', {}));
  const made = parallelOf(occt, only!, { by, corners });
  // The kernel may keep strips that are turned over.
  if (made.length > 1 || !made.every(({ closed }) => closed) || !isBetween(only!, made, by)) throw noRoom(by);
  return made;
}

/** Outward there is more, inward less. */
function isBetween(path: Path, made: readonly DrawnPath[], by: number): boolean {
  const area = filledArea(namedPaths(made));
  return by > 0 === area > Math.abs(pathArea(path));
}

/** Without corners to round, and with mitred ones, the legs are laid one by one, without the kernel. */
function exactParallel(path: Path, by: number, corners: 'round' | 'square'): DrawnPath | undefined {
  const isSmooth = cornersOf([path]).length === 0;
  const left = path.closed && pathArea(path) > 0 ? -by : by;
  const exact = corners === 'square' || isSmooth ? parallelPath(path, left) : undefined;
  return exact && { closed: exact.closed, curves: exact.curves.map(({ curve }) => curve) };
}

function parallelOf(
  occt: Occt,
  path: Path,
  { by, corners }: { readonly by: number; readonly corners: 'round' | 'square' },
): DrawnPath[] {
  return scope((keep) => {
    const exact = exactParallel(path, by, corners);
    if (exact) return [exact];
    const { wire } = wireOf({ occt, keep }, edgesOfPath({ occt, keep }, path));
    const join = corners === 'round' ? 'GeomAbs_Arc' : 'GeomAbs_Intersection';
    const operation = keep(new occt.BRepOffsetAPI_MakeOffset(wire, join, !path.closed));
    operation.Perform(path.closed ? by : isLeftPositive(path) ? by : -by, 0);
    const made = operation.IsDone() ? keep(operation.Shape()) : undefined;
    const edges = made ? occurrences({ occt, keep }, made, 'TopAbs_EDGE') : [];
    if (edges.length === 0) throw noRoom(by);
    return pathsOfEdges(occt, edges);
  });
}

/** The kernel goes to the right of an open outline whose ends it takes to be closed counter-clockwise. */
const isLeftPositive = (path: Path) => pathArea(path) < 0;

/** The borders of what a solid and the XY plane have in common. Throws BuildError when they do not meet. */
export function cutOutlines(occt: Occt, shape: TopoDS_Shape): DrawnPath[] {
  return scope((keep) => {
    const { min, max } = exactBox(occt, shape);
    const plane = keep(new occt.gp_Pln(keep(new occt.gp_Pnt(0, 0, 0)), keep(new occt.gp_Dir(0, 0, 1))));
    const sheet = keep(
      keep(new occt.BRepBuilderAPI_MakeFace(plane, min[0] - 1, max[0] + 1, min[1] - 1, max[1] + 1)).Face(),
    );
    const common = keep(new occt.BRepAlgoAPI_Common(sheet, shape, progressRange({ occt, keep })));
    const edges = occurrences({ occt, keep }, keep(common.Shape()), 'TopAbs_EDGE');
    common.Clear();
    if (edges.length === 0) throw new BuildError(faultOf('outline.plane-misses', {}));
    return pathsOfEdges(occt, edges);
  });
}

/** Facets that say where a shape casts its shadow, as a part of its size. */
const SHADOW_CHORD = 1 / 2000;

/**
 * The border of the shadow that a shape casts along Z on the XY plane, with its holes: the edges that it shows, and where its
 * round faces turn away, cut the plane into regions; those under the shape are joined. Throws BuildError.
 */
export function shadowOutlines(occt: Occt, shape: TopoDS_Shape): DrawnPath[] {
  return scope((keep) => {
    const [seen] = linesSeen({ occt, keep }, [shape], [{ shape: 0, hiders: [] }]);
    const { visible, hidden } = seen!;
    const paths = namedPaths(pathsOfEdges(occt, [...visible, ...hidden]));
    const split = splitRegions({ occt, keep }, paths);
    const { min, max } = exactBox(occt, shape);
    const mesh = meshShape(occt, shape, SHADOW_CHORD * Math.hypot(...boxSize({ min, max })));
    const under = split.regions.filter(({ at }) => heightsAt(mesh, at[0], at[1]).length > 0);
    if (under.length === 0) throw new BuildError(faultOf('outline.no-shadow', {}));
    const { faces } = merged(
      { occt, keep },
      under.map(({ face }) => face),
      split.names,
    );
    return pathsOfEdges(
      occt,
      faces.flatMap((face) => occurrences({ occt, keep }, face, 'TopAbs_EDGE')),
    );
  });
}
