/** A solid whose faces have all moved out, or in, by one distance. */
import { faultOf, type Vec3 } from '@kadrel/core';
import type { Content } from '../../content/content.ts';
import {
  BuildError,
  ShapeMap,
  fromList,
  progressRange,
  release,
  scope,
  uniqueShapes,
  type Keep,
  type Occt,
  type TopoDS_Shape,
} from '../../occt/occt.ts';
import { requireBodies } from '../compound.ts';
import { onCopy } from '../onCopy.ts';
import { astray, missing } from './clearance.ts';
import { ROUND_JOINS, SHARP_JOINS, byJoins, type Join } from './joins.ts';
import { buildOrTellLargest } from './largest.ts';
import type { NamedShape } from '../../naming/named.ts';

type Offset = Extract<Content, { readonly kind: 'offset' }>;

const TOLERANCE_MM = 1e-6;
const MAX_PLACES = 6;

/** What came to no closed body did not go so far. */
function bodyOf(occt: Occt, made: TopoDS_Shape, by: number): TopoDS_Shape {
  try {
    return requireBodies(occt, made, 'The offset solid');
  } catch (error) {
    if (!(error instanceof BuildError)) throw error;
    throw cannotFollow(by, error.places);
  }
}

/** What is asked of an offset. */
export type Offsetting = Pick<Offset, 'by' | 'corners'>;

/** Throws BuildError, with the largest clearance that fits. */
export const buildOffset = (occt: Occt, of: NamedShape, { by, corners }: Offset): NamedShape =>
  buildOrTellLargest(Math.abs(by), (size) => offsetBy(occt, of, { by: Math.sign(by) * size, corners }), {
    what: 'clearance',
    giveBack: ({ shape }) => release(occt, shape),
  });

/** Faces keep their names; those that edges and corners become are called corner1, corner2 and so on. Throws BuildError. */
export const offsetBy = (occt: Occt, of: NamedShape, { by, corners }: Offsetting): NamedShape =>
  byJoins(occt, joinsOf({ by, corners }), (join) =>
    onCopy(occt, of, (own) => offsetJoined(occt, own, { by, corners, join })),
  );

/** Outward a round corner is asked for, and nothing else will do. */
function joinsOf({ by, corners }: Offsetting): readonly Join[] {
  if (corners === 'square') return SHARP_JOINS;
  return by < 0 ? ROUND_JOINS : ROUND_JOINS.slice(0, 1);
}

function offsetJoined(
  occt: Occt,
  of: NamedShape,
  { by, corners, join }: Offsetting & { readonly join: Join },
): NamedShape {
  return scope((keep) => {
    const operation = keep(new occt.BRepOffsetAPI_MakeOffsetShape());
    operation.PerformByJoin(
      of.shape,
      by,
      TOLERANCE_MM,
      'BRepOffset_Skin',
      false,
      false,
      join,
      false,
      progressRange({ occt, keep }),
    );
    if (!operation.IsDone()) throw cannotFollow(by);
    const shape = bodyOf(occt, operation.Shape(), by);
    const wrong = [
      ...astray(occt, { shape, of: of.shape, by, isRound: corners === 'round' }),
      ...missing(occt, { shape, of: of.shape, by }),
    ];
    if (wrong.length > 0) throw cannotFollow(by, wrong);
    return named(occt, shape, { of, operation, keep });
  });
}

const cannotFollow = (by: number, places: readonly Vec3[] = []) =>
  new BuildError(faultOf(by < 0 ? 'offset.inward' : 'offset.outward', { by }), places.slice(0, MAX_PLACES));

interface Made {
  readonly of: NamedShape;
  readonly operation: InstanceType<Occt['BRepOffsetAPI_MakeOffsetShape']>;
  readonly keep: Keep;
}

function named(occt: Occt, shape: TopoDS_Shape, { of, operation, keep }: Made): NamedShape {
  const names = new ShapeMap<string>(occt);
  uniqueShapes({ occt, keep }, of.shape, 'TopAbs_FACE').forEach((face, i) => {
    for (const image of fromList({ occt, keep }, keep(operation.Generated(face))))
      names.ensure(image, () => of.faceNames[i]!);
  });
  let corners = 0;
  const faceNames = uniqueShapes({ occt, keep }, shape, 'TopAbs_FACE').map(
    (face) => names.get(face) ?? `corner${++corners}`,
  );
  return { shape, faceNames };
}
