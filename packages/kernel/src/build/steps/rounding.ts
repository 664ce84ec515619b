/** What fillets and chamfers share: their edges, their names and their checks. */
import { faultOf, type Vec3 } from '@kadrel/core';
import {
  BuildError,
  ShapeMap,
  fromList,
  progressRange,
  release,
  translated,
  uniqueShapes,
  type Keep,
  type Occt,
  type TopoDS_Shape,
} from '../../occt/occt.ts';
import { isSound } from '../../occt/sound.ts';
import { plainVolumeOf } from '../../facts/integrals.ts';
import type { MeetingEdge } from './chosen.ts';
import { carryNames } from '../../naming/carry.ts';
import { UNNAMED, type NamedShape } from '../../naming/named.ts';

type Operation =
  InstanceType<Occt['BRepFilletAPI_MakeFillet']> | InstanceType<Occt['BRepFilletAPI_MakeChamfer']>;

/** What is done to edges, and how its refusals speak of it. */
export interface Rounding {
  readonly occt: Occt;
  readonly of: NamedShape;
  readonly edges: readonly MeetingEdge[];
  /** “Fillet”: what the new faces are called, in lower case and with a number, and what the sentence begins with. */
  readonly what: 'Fillet' | 'Chamfer';
  readonly keep: Keep;
}

/** Runs an operation whose edges are added. Throws BuildError: with the places of the edges where it does not go. */
export function rounded(operation: Operation, rounding: Rounding): NamedShape {
  const { occt, of, edges, what } = rounding;
  const shape = shapeOf(operation, rounding);
  if (!isWhole(occt, { before: of.shape, after: shape }, edges)) {
    release(occt, shape);
    throw cannotGo(what, edges);
  }
  return { shape, faceNames: namesAfter(operation, rounding, shape), isSound: true };
}

function namesAfter(operation: Operation, { occt, of, edges, what, keep }: Rounding, shape: TopoDS_Shape) {
  const carried = carryNames({ occt, keep }, operation, { inputs: [of], result: shape });
  const made = new ShapeMap<string>(occt);
  edges.forEach(({ edge }, i) => {
    for (const face of fromList({ occt, keep }, keep(operation.Generated(edge))))
      made.ensure(face, () => `${what.toLowerCase()}${i + 1}`);
  });
  let corners = 0;
  return uniqueShapes({ occt, keep }, shape, 'TopAbs_FACE').map((face, i) =>
    carried[i] === UNNAMED ? (made.get(face) ?? `${what.toLowerCase()} corner${++corners}`) : carried[i]!,
  );
}

function shapeOf(operation: Operation, { occt, edges, what, keep }: Rounding): TopoDS_Shape {
  try {
    operation.Build(progressRange({ occt, keep }));
    if (operation.IsDone()) return operation.Shape();
  } catch (error) {
    const failure = translated(occt, error);
    if (!(failure instanceof BuildError)) throw failure;
  }
  throw cannotGo(what, faultyEdges(operation, edges));
}

/** Which edges the kernel blames; all, where it does not say. */
function faultyEdges(operation: Operation, edges: readonly MeetingEdge[]): readonly MeetingEdge[] {
  if (!('NbFaultyContours' in operation)) return edges;
  const blamed = Array.from(
    { length: operation.NbFaultyContours() },
    (_, i) => edges[operation.FaultyContour(i + 1) - 1],
  ).filter((edge) => edge !== undefined);
  return blamed.length > 0 ? blamed : edges;
}

/** Sound, of as many pieces, and smaller for outward edges, larger for inward ones. */
function isWhole(
  occt: Occt,
  { before, after }: { readonly before: TopoDS_Shape; readonly after: TopoDS_Shape },
  edges: readonly MeetingEdge[],
): boolean {
  if (!isSound(occt, after)) return false;
  const [was, is] = [plainVolumeOf(occt, before), plainVolumeOf(occt, after)];
  if (!(is > 0)) return false;
  const bends = new Set(edges.map(({ bend }) => bend));
  if (!bends.has('inward') && !(is < was)) return false;
  return bends.has('outward') || is > was;
}

const MAX_PLACES = 12;
/** Said of the edges where it does not go. */
export function cannotGo(what: Rounding['what'], edges: readonly MeetingEdge[]): BuildError {
  const places: Vec3[] = edges.slice(0, MAX_PLACES).map(({ middle }) => middle);
  const many = edges.length === 1 ? 'this edge' : 'these edges';
  return new BuildError(faultOf('rounding.size', { what, many }), places);
}
