/**
 * How far a fillet or a chamfer can go on a flat face from a circle round it: to the middle. The kernel is not asked for more, since beside
 * that it sometimes does not come back.
 */
import { dot, subtract } from '@kadrel/core';
import { isFlatFace } from '../../facts/surface.ts';
import { read, scope, type Occt } from '../../occt/occt.ts';
import type { MeetingEdge } from './chosen.ts';

/** A whole circle with one of its faces flat and within it. */
export interface Rim {
  readonly edge: MeetingEdge;
  /** mm */
  readonly radius: number;
  /** Which of the edge's faces is the flat one. */
  readonly flat: 0 | 1;
}

/** Undefined where an edge is no such circle. */
function rimOf(occt: Occt, edge: MeetingEdge): Rim | undefined {
  const { faces, middle, into } = edge;
  return scope((keep) => {
    const curve = keep(new occt.BRepAdaptor_Curve(edge.edge));
    if ((curve.GetType() as unknown as string) !== 'GeomAbs_Circle') return undefined;
    if (curve.LastParameter() - curve.FirstParameter() < WHOLE_TURN_RAD) return undefined;
    const circle = keep(curve.Circle());
    const inward = subtract(read(keep(circle.Location()), keep), middle);
    const isDisc = (i: 0 | 1) => isFlatFace(occt, faces[i]) && dot(into[i], inward) > 0;
    const flat = ([0, 1] as const).find(isDisc);
    return flat === undefined ? undefined : { edge, radius: circle.Radius(), flat };
  });
}
const WHOLE_TURN_RAD = 2 * Math.PI - 1e-9;

/** Just to the middle fits: it leaves a dome or a point. */
const HAIR = 1 + 1e-9;

/** Those of some edges that are such circles. */
export const rimsAmong = (occt: Occt, edges: Iterable<MeetingEdge>): Rim[] =>
  [...edges].flatMap((edge) => rimOf(occt, edge) ?? []);

/** The edges for which there is no room on their flat face. @param legOf how far it goes on that face, mm */
export const withoutRoom = (rims: readonly Rim[], legOf: (rim: Rim) => number): MeetingEdge[] =>
  rims.filter((rim) => legOf(rim) > rim.radius * HAIR).map(({ edge }) => edge);
