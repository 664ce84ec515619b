/** What lies on one side of a plane. */
import { NO_TURN, chain, type Pose } from '@kadrel/core';
import type { Content } from '../../content/content.ts';
import type { NamedShape } from '../../naming/named.ts';
import { moved, scope, type Occt, type TopoDS_Shape } from '../../occt/occt.ts';
import { keptSide, reachFrom } from './halves.ts';

type Cut = Extract<Content, { readonly kind: 'cut' }>;

/** Planes leave nothing to approximate. */
const SAME_VOLUME = 1e-9;

/** The new face is called cut. Throws BuildError. */
export function buildCut(occt: Occt, of: NamedShape, { frame, keep: side }: Cut): NamedShape {
  return scope((keep) => {
    const shape = keep(blockBefore(occt, frame, reachFrom(occt, of.shape, frame.shift)));
    const tool = { shape, faceNames: Array<string>(6).fill('cut') };
    return keptSide(occt, of, { tool, keep: side, sameVolume: SAME_VOLUME, by: 'plane', at: frame.shift });
  });
}

/** A block on the front of the plane, larger than all that could lie there. */
export function blockBefore(occt: Occt, frame: Pose, reach: number): TopoDS_Shape {
  return scope((keep) => {
    const box = keep(keep(new occt.BRepPrimAPI_MakeBox(2 * reach, 2 * reach, reach)).Shape());
    return moved(occt, box, chain(frame, { turn: NO_TURN, shift: [-reach, -reach, 0] }));
  });
}
