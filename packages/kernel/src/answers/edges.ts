/** Sizes of edges: lengths, radii, and the angles between the faces that meet there. */
import { degrees, type ChosenEdge, type EdgeFacts } from '@kadrel/core';
import { edgesAmong, meetingEdges, type MeetingEdge } from '../build/steps/chosen.ts';
import type { NamedShape } from '../naming/named.ts';
import { endsOfEdge } from '../occt/edges.ts';
import { scope, uniqueShapes, type Occt, type TopoDS_Shape } from '../occt/occt.ts';

/** Radii (mm) and angles (degrees) that differ by less are one. */
const SAME = 1e-7;

/** Throws BuildError where no edge is meant. */
export function edgeFacts(occt: Occt, of: NamedShape, chosen: readonly ChosenEdge[]): EdgeFacts {
  return scope((keep) => {
    const edges = edgesAmong(occt, meetingEdges({ occt, keep }, of), chosen);
    const radius = common(edges.map((edge) => radiusOf(occt, edge)));
    const angle = common(edges.map(angleBetween));
    return {
      count: edges.length,
      length: edges.reduce((sum, edge) => sum + lengthOf(occt, edge), 0),
      ...(radius === undefined ? {} : { radius }),
      ...(angle === undefined ? {} : { angle }),
    };
  });
}

/** What all have, where it is the same. */
function common(values: readonly (number | undefined)[]): number | undefined {
  const [first] = values;
  const isSame = (value: number | undefined) => value !== undefined && Math.abs(value - first!) < SAME;
  return first !== undefined && values.every(isSame) ? first : undefined;
}

const lengthOf = (occt: Occt, { edge }: MeetingEdge): number =>
  scope((keep) => {
    const properties = keep(new occt.GProp_GProps());
    occt.BRepGProp.LinearProperties(edge, properties, false, false);
    return properties.Mass();
  });

const radiusOf = (occt: Occt, { edge }: MeetingEdge): number | undefined =>
  scope((keep) => {
    const curve = keep(new occt.BRepAdaptor_Curve(edge));
    if ((curve.GetType() as unknown as string) !== 'GeomAbs_Circle') return undefined;
    return keep(curve.Circle()).Radius();
  });

/** Through the material, at the middle of the edge. */
function angleBetween({ bend, cosine }: MeetingEdge): number {
  const turn = degrees(Math.acos(Math.min(1, Math.max(-1, cosine))));
  return bend === 'inward' ? 180 + turn : 180 - turn;
}

/** Both ends of each edge of a solid with flat faces, mm. */
export const edgeEnds = (occt: Occt, shape: TopoDS_Shape): number[] =>
  scope((keep) =>
    uniqueShapes({ occt, keep }, shape, 'TopAbs_EDGE').flatMap((edge) =>
      endsOfEdge({ occt, keep }, keep(occt.TopoDS.Edge(edge))).flat(),
    ),
  );
