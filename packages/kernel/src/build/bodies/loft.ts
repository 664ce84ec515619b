/** Bodies and surfaces between sections. */
import {
  depthAt,
  faultOf,
  matchedOutlines,
  simplePieces,
  startOf,
  type Path,
  type PlacedPath,
  type Section,
} from '@kadrel/core';
import { BuildError, fromList, progressRange, scope, type Occt } from '../../occt/occt.ts';
import type { BodyContent, Ends } from '../../content/bodies.ts';
import { combineShapes } from '../../booleans/operation.ts';
import { requireBodies } from '../compound.ts';
import { placedWire } from '../../occt/edges.ts';
import { buildGuided } from './guided.ts';
import { nameFaces, type NamedShape } from '../../naming/named.ts';

type Loft = Extract<BodyContent, { kind: 'loft' }>;

/** Faces: bottom, top, the sides by the curves of the first section, and those of the hollow after `hollow.`. */
export function buildLoft(occt: Occt, content: Loft): NamedShape {
  const { sections, starts, closed, guides, ends } = content;
  const loops = sections.map(loopsOf);
  const hollow = loops.filter(({ inner }) => inner).length;
  if (hollow > 0 && hollow < loops.length) throw new BuildError(faultOf('loft.some-hollow', {}));
  if (hollow > 0 && (ends === 'open' || guides.length > 0))
    throw new BuildError(faultOf('loft.single-outlines', {}));
  const matched = (paths: readonly Path[]) => {
    const placed = sections.map(({ pose }, i) => ({ pose, path: inPieces(paths[i]!) }));
    return matchedOutlines(placed, { moved: starts, closed });
  };
  const outlines = matched(loops.map(({ outer }) => outer));
  if (guides.length > 0) return buildGuided(occt, { outlines, guides }, ends);
  const outer = through(occt, outlines, content);
  if (hollow === 0) return outer;
  const inner = through(occt, matched(loops.map((loop) => loop.inner!)), content);
  try {
    return combineShapes(occt, 'subtract', [
      { ...outer, tag: '' },
      { ...inner, tag: 'hollow' },
    ]);
  } finally {
    outer.shape.delete();
    inner.shape.delete();
  }
}

/** Curves that would become several edges, as several curves. */
const inPieces = ({ closed, curves }: Path): Path => ({
  closed,
  curves: curves.flatMap(({ name, curve }) => simplePieces(curve).map((piece) => ({ name, curve: piece }))),
});

/** The outline of a section, and the one inside it. */
export function loopsOf({ paths }: Pick<Section, 'paths'>): { outer: Path; inner?: Path } {
  const closed = paths.filter((path) => path.closed);
  const depth = (path: Path) =>
    depthAt(
      closed.filter((other) => other !== path),
      startOf(path.curves[0]!.curve),
    );
  const outer = closed.filter((path) => depth(path) === 0);
  const inner = closed.filter((path) => depth(path) === 1);
  if (outer.length !== 1 || inner.length > 1)
    throw new BuildError(faultOf('loft.section-outlines', { outer: outer.length, inner: inner.length }));
  return { outer: outer[0]!, ...(inner[0] ? { inner: inner[0] } : {}) };
}

const LOFT_TOLERANCE_MM = 1e-6;

interface Way {
  readonly flanks: Loft['flanks'];
  readonly closed: boolean;
  readonly ends: Ends;
  /** What the first and the last face are called; bottom and top. */
  readonly names?: readonly [string, string];
}

/** Through outlines of as many curves each, from start to start. */
export function through(
  occt: Occt,
  outlines: readonly PlacedPath[],
  { flanks, closed, ends, names = ['bottom', 'top'] }: Way,
): NamedShape {
  return scope((keep) => {
    const isSolid = ends === 'capped' || closed;
    const loft = keep(new occt.BRepOffsetAPI_ThruSections(isSolid, flanks === 'ruled', LOFT_TOLERANCE_MM));
    // They are matched already.
    loft.CheckCompatibility(false);
    const wires = outlines.map(({ pose, path }) => placedWire({ occt, keep }, path, pose));
    for (const { wire } of wires) loft.AddWire(wire);
    if (closed) loft.AddWire(wires[0]!.wire);
    loft.Build(progressRange({ occt, keep }));
    if (!loft.IsDone()) throw new BuildError(faultOf('loft.not-joined', {}));
    const made = loft.Shape();
    const shape = isSolid ? requireBodies(occt, made, 'The body between the sections') : made;
    const caps =
      isSolid && !closed
        ? [
            { face: keep(occt.TopoDS.Face(keep(loft.FirstShape()))), name: names[0] },
            { face: keep(occt.TopoDS.Face(keep(loft.LastShape()))), name: names[1] },
          ]
        : [];
    const named = nameFaces(occt, shape, [
      ...caps,
      ...wires[0]!.edges.flatMap(({ edge, name }) =>
        fromList({ occt, keep }, keep(loft.Generated(edge)))
          .filter((one) => (one.ShapeType() as unknown as string) === 'TopAbs_FACE')
          .map((one) => ({ face: keep(occt.TopoDS.Face(one)), name })),
      ),
    ]);
    return { ...named, faceNames: named.faceNames.map((name) => (name === 'face' ? 'side' : name)) };
  });
}
