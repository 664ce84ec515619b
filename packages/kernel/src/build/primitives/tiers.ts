/** Stacked levels: round ones turned, those with straight sides cut from as many strips as they have sides. */
import { cosDegrees, faultOf, sinDegrees, type Vec2 } from '@kadrel/core';
import { BuildError, moved, scope, type Scoped, type Occt } from '../../occt/occt.ts';
import type { TierContent } from '../../content/bodies.ts';
import { combineShapes, type Tagged } from '../../booleans/operation.ts';
import { edgeOf, wireOf, type NamedEdge } from '../../occt/edges.ts';
import { nameFaces, type NamedShape } from '../../naming/named.ts';

/** Faces of level n after `n.`: bottom, top, and side, or side1 … of one with straight sides. */
export function buildTiers(occt: Occt, levels: readonly TierContent[]): NamedShape {
  let foot = 0;
  const solids: Tagged[] = [];
  try {
    levels.forEach((level, i) => {
      requireLevel(level, i + 1);
      const own = level.outline === 'round' ? roundLevel(occt, level) : straightLevel(occt, level);
      const shape = moved(occt, own.shape, { turn: [1, 0, 0, 0, 1, 0, 0, 0, 1], shift: [0, 0, foot] });
      own.shape.delete();
      solids.push({
        shape,
        tag: `level${i + 1}`,
        faceNames: own.faceNames.map((name) => `${i + 1}.${name}`),
      });
      foot += level.height;
    });
    if (solids.length === 1) {
      const [only] = solids.splice(0);
      return { shape: only!.shape, faceNames: only!.faceNames };
    }
    return combineShapes(
      occt,
      'union',
      solids.map((solid, i) => ({ ...solid, tag: i === 0 ? '' : solid.tag })),
    );
  } finally {
    for (const { shape } of solids) shape.delete();
  }
}

function requireLevel({ below, above, height, flank }: TierContent, level: number): void {
  if (!(below > 0)) throw new BuildError(faultOf('tiers.lower-width', { level }));
  if (!(height > 0)) throw new BuildError(faultOf('tiers.height', { level }));
  if (above < 0) throw new BuildError(faultOf('tiers.upper-width', { level }));
  if (flank === 'curve' && below === above) return;
}

/** Half the outline of a level on the side of +X: from the axis along the bottom, up the flank, and back along the top. */
function halfOutline({ below, above, height, flank }: TierContent, { occt, keep }: Scoped): NamedEdge[] {
  const [low, high] = [below / 2, flank === 'step' ? below / 2 : above / 2];
  const line = (from: Vec2, to: Vec2, name: string): NamedEdge[] =>
    from[0] === to[0] && from[1] === to[1]
      ? []
      : [{ name, edge: edgeOf({ occt, keep }, { kind: 'line', from, to }) }];
  const isCurved = flank === 'curve' && low !== high;
  const flankEdges = isCurved
    ? [{ name: 'side', edge: edgeOf({ occt, keep }, quarter(low, high, height)) }]
    : line([low, 0], [high, height], 'side');
  return [
    ...line([0, 0], [low, 0], 'bottom'),
    ...flankEdges,
    ...line([high, height], [0, height], 'top'),
    ...line([0, height], [0, 0], 'axis'),
  ];
}

/** A quarter of an ellipse, upright at its wider end and level at its narrower one. */
function quarter(low: number, high: number, height: number) {
  const [wide, deep] = [Math.abs(low - high), height];
  const narrows = low > high;
  const centre: Vec2 = [Math.min(low, high), narrows ? 0 : height];
  const across: Vec2 = [wide, 0];
  const up: Vec2 = [0, narrows ? deep : -deep];
  // Half axes come the longer one first.
  const [x, y] = wide >= deep ? [across, up] : [up, across];
  const [first, sweep] = wide >= deep ? [0, 90] : [90, -90];
  const from = narrows ? { first, sweep } : { first: first + sweep, sweep: -sweep };
  return { kind: 'ellipse' as const, centre, x, y, ...from };
}

function roundLevel(occt: Occt, level: TierContent): NamedShape {
  return scope((keep) => {
    // The outline is drawn in X and Y, and stood up so that its Y is Z.
    const upright = { turn: [1, 0, 0, 0, 0, -1, 0, 1, 0], shift: [0, 0, 0] } as const;
    const standing = halfOutline(level, { occt, keep }).map(({ name, edge }) => ({
      name,
      edge: keep(occt.TopoDS.Edge(keep(moved(occt, edge, upright)))),
    }));
    const { wire, edges } = wireOf({ occt, keep }, standing);
    const face = keep(keep(new occt.BRepBuilderAPI_MakeFace(wire, true)).Face());
    const axis = keep(new occt.gp_Ax1(keep(new occt.gp_Pnt(0, 0, 0)), keep(new occt.gp_Dir(0, 0, 1))));
    const operation = keep(new occt.BRepPrimAPI_MakeRevol(face, axis, false));
    // The kernel's faces come in the order of the outline's pieces; what lies on the axis becomes nothing.
    const faceNames = edges.map(({ name }) => name).filter((name) => name !== 'axis');
    return { shape: operation.Shape(), faceNames };
  });
}

/** The common part of strips whose flanks have the half outline, one for each side, or each pair of opposite sides. */
function straightLevel(occt: Occt, level: TierContent): NamedShape {
  const sides = level.outline === 'square' ? 4 : level.sides;
  const far = 4 * Math.max(level.below, level.above) * (sides === 3 ? 2 : 1);
  const strips = Array.from({ length: sides }, (_, i): Tagged => {
    const angle = -90 + (360 * i) / sides;
    return strip(occt, { level, angle, far }, `side${i + 1}`);
  });
  try {
    return combineShapes(
      occt,
      'intersect',
      strips.map((one, i) => ({ ...one, tag: i === 0 ? '' : 's' })),
    );
  } finally {
    for (const { shape } of strips) shape.delete();
  }
}

/** What lies on the inner side of one flank, pulled to both sides. @param angle degrees of the way out */
function strip(
  occt: Occt,
  { level, angle, far }: { readonly level: TierContent; readonly angle: number; readonly far: number },
  name: string,
): Tagged {
  return scope((keep) => {
    const [c, s] = [cosDegrees(angle), sinDegrees(angle)];
    const flank = halfOutline(level, { occt, keep });
    const back: NamedEdge[] = [];
    const line = (from: Vec2, to: Vec2, what: string) =>
      back.push({ name: what, edge: edgeOf({ occt, keep }, { kind: 'line', from, to }) });
    // Instead of the axis it goes on beyond it.
    line([0, level.height], [-far, level.height], 'top');
    line([-far, level.height], [-far, 0], 'far');
    line([-far, 0], [0, 0], 'bottom');
    const upright = { turn: [c, 0, s, s, 0, -c, 0, 1, 0], shift: [-s * far, c * far, 0] } as const;
    const standing = [...flank.filter((one) => one.name !== 'axis'), ...back].map((one) => ({
      name: one.name === 'side' ? name : one.name,
      edge: keep(occt.TopoDS.Edge(keep(moved(occt, one.edge, upright)))),
    }));
    const { wire, edges } = wireOf({ occt, keep }, standing);
    const face = keep(keep(new occt.BRepBuilderAPI_MakeFace(wire, true)).Face());
    const along = keep(new occt.gp_Vec(2 * s * far, -2 * c * far, 0));
    const prism = keep(new occt.BRepPrimAPI_MakePrism(face, along, false, true));
    const roles = edges.map((one) => ({
      face: keep(occt.TopoDS.Face(keep(keep(prism.Generated(one.edge)).First()))),
      name: one.name,
    }));
    return { ...nameFaces(occt, prism.Shape(), roles), tag: '' };
  });
}
