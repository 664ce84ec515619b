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
  /** mm */
  readonly radius: number;
  /** Which of the edge's faces is the flat one. */
  readonly flat: 0 | 1;
}

/** Undefined where an edge is no such circle. */
export function rimOf(occt: Occt, { edge, faces, middle, into }: MeetingEdge): Rim | undefined {
  return scope((keep) => {
    const curve = keep(new occt.BRepAdaptor_Curve(edge));
    if ((curve.GetType() as unknown as string) !== 'GeomAbs_Circle') return undefined;
    if (curve.LastParameter() - curve.FirstParameter() < WHOLE_TURN_RAD) return undefined;
    const circle = keep(curve.Circle());
    const inward = subtract(read(keep(circle.Location()), keep), middle);
    const isDisc = (i: 0 | 1) => isFlatFace(occt, faces[i]) && dot(into[i], inward) > 0;
    const flat = ([0, 1] as const).find(isDisc);
    return flat === undefined ? undefined : { radius: circle.Radius(), flat };
  });
}
const WHOLE_TURN_RAD = 2 * Math.PI - 1e-9;

/** Just to the middle fits: it leaves a dome or a point. */
const HAIR = 1 + 1e-9;

/** Those edges for which there is no room on their flat face. @param legOf how far it goes on that face, mm */
export const withoutRoom = (
  occt: Occt,
  edges: readonly MeetingEdge[],
  legOf: (edge: MeetingEdge, rim: Rim) => number,
): MeetingEdge[] =>
  edges.filter((edge) => {
    const rim = rimOf(occt, edge);
    return rim !== undefined && legOf(edge, rim) > rim.radius * HAIR;
  });
