/** Whether solids of one shape touch where they share nothing: along a line or in a point. */
import { boxesMeet, type Box, type Vec3 } from '@kadrel/core';
import { distanceBetween, occurrences, scope, type Occt, type TopoDS_Shape } from '../occt/occt.ts';

/** Solids nearer than this (mm) touch: the kernel's tolerance. */
const TOUCH_MM = 1e-7;
/** More pairs of solids than this with boxes that meet are not looked at one by one. */
const MOST_PAIRS = 60;

export function doTouch(occt: Occt, shape: TopoDS_Shape): boolean {
  return scope((keep) => {
    const solids = occurrences(occt, shape, 'TopAbs_SOLID', keep);
    if (solids.length < 2) return false;
    const boxes = solids.map((solid) => wideBox(occt, solid));
    const pairs = solids.flatMap((a, i) =>
      solids
        .slice(i + 1)
        .flatMap((b, j) => (boxesMeet(boxes[i]!, boxes[i + 1 + j]!) ? [[a, b] as const] : [])),
    );
    return pairs.slice(0, MOST_PAIRS).some(([a, b]) => distanceBetween(occt, a, b) <= TOUCH_MM);
  });
}

function wideBox(occt: Occt, shape: TopoDS_Shape): Box {
  return scope((keep) => {
    const bounds = keep(new occt.Bnd_Box());
    occt.BRepBndLib.Add(shape, bounds, false);
    const [min, max] = [keep(bounds.CornerMin()), keep(bounds.CornerMax())];
    const read = (one: typeof min): Vec3 => [one.X(), one.Y(), one.Z()];
    return { min: read(min), max: read(max) };
  });
}
