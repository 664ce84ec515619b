/** Bodies between sections. */
import { BuildError, fromList, moved, progressRange, scope, type Keep, type Occt } from '../occt/occt.ts';
import type { Path, Pose, Section } from '@kadrel/core';
import { depthAt, startOf } from '@kadrel/core';
import type { BodyContent } from '../bodies.ts';
import { buildCombination } from './combine.ts';
import { requireBodies } from './compound.ts';
import { edgesOfPath, wireOf, type NamedEdge, type Wire } from './edges.ts';
import { nameFaces, type NamedShape } from './named.ts';

type Loft = Extract<BodyContent, { kind: 'loft' }>;

/** Faces: bottom, top, the sides by the curves of the first section, and those of the hollow after `hollow.`. */
export function buildLoft(occt: Occt, { sections, flanks }: Loft): NamedShape {
  const loops = sections.map(loopsOf);
  const hollow = loops.filter(({ inner }) => inner).length;
  if (hollow > 0 && hollow < loops.length)
    throw new BuildError(
      'Some of the sections have an inner outline, and some have none.',
      'Give every section one, or none of them.',
    );
  const outer = through(
    occt,
    sections.map(({ pose }, i) => ({ pose, path: loops[i]!.outer })),
    flanks,
  );
  if (hollow === 0) return outer;
  const inner = through(
    occt,
    sections.map(({ pose }, i) => ({ pose, path: loops[i]!.inner! })),
    flanks,
  );
  try {
    return buildCombination(occt, 'subtract', [
      { ...outer, tag: '' },
      { ...inner, tag: 'hollow' },
    ]);
  } finally {
    outer.shape.delete();
    inner.shape.delete();
  }
}

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
    throw new BuildError(
      `A section has ${outer.length} outlines with ${inner.length} inside.`,
      'A section is one closed outline, with at most one inside it.',
    );
  return { outer: outer[0]!, ...(inner[0] ? { inner: inner[0] } : {}) };
}

const LOFT_TOLERANCE_MM = 1e-6;

function through(
  occt: Occt,
  sections: readonly { readonly pose: Pose; readonly path: Path }[],
  flanks: Loft['flanks'],
): NamedShape {
  return scope((keep) => {
    const loft = keep(new occt.BRepOffsetAPI_ThruSections(true, flanks === 'ruled', LOFT_TOLERANCE_MM));
    const wires = sections.map(({ pose, path }) => placedWire(occt, path, pose, keep));
    for (const { wire } of wires) loft.AddWire(wire);
    loft.Build(progressRange(occt, keep));
    if (!loft.IsDone())
      throw new BuildError('These sections cannot be joined.', 'Move them apart, or make them more alike.');
    const shape = requireBodies(occt, loft.Shape(), 'The body between the sections');
    const named = nameFaces(occt, shape, [
      { face: keep(occt.TopoDS.Face(keep(loft.FirstShape()))), name: 'bottom' },
      { face: keep(occt.TopoDS.Face(keep(loft.LastShape()))), name: 'top' },
      ...wires[0]!.edges.flatMap(({ edge, name }) =>
        fromList(occt, keep(loft.Generated(edge)), keep)
          .filter((made) => (made.ShapeType() as unknown as string) === 'TopAbs_FACE')
          .map((made) => ({ face: keep(occt.TopoDS.Face(made)), name })),
      ),
    ]);
    return { ...named, faceNames: named.faceNames.map((name) => (name === 'face' ? 'side' : name)) };
  });
}

/** A path carried into space. */
export function placedWire(
  occt: Occt,
  path: Path,
  pose: Pose,
  keep: Keep,
): { wire: Wire; edges: NamedEdge[] } {
  const placed = edgesOfPath(occt, path, keep).map(({ name, edge }) => ({
    name,
    edge: keep(occt.TopoDS.Edge(keep(moved(occt, edge, pose)))),
  }));
  return wireOf(occt, placed, keep);
}
