/** How near the edges of a solid are to its faces, by what the kernel says of them itself. */
import type { Occt, TopoDS_Shape } from '../occt/occt.ts';

/** Edges that are off their faces by more than this (mm) make volumes wrong in their sixth digit; usually it is 0.0000001. */
export const LOOSE_MM = 5e-6;

/** How far (mm) corners, and with them the edges that end there, may be off their faces, at the most. */
export const loosenessOf = (occt: Occt, shape: TopoDS_Shape): number =>
  occt.BRep_Tool.MaxTolerance(shape, 'TopAbs_VERTEX');

/** How far (mm) edges may be off their faces, at the most: chamfers leave their corners room that their edges do not need. */
export const edgeLoosenessOf = (occt: Occt, shape: TopoDS_Shape): number =>
  occt.BRep_Tool.MaxTolerance(shape, 'TopAbs_EDGE');

/** Without an exponent, and without zeros behind. */
export const shortMm = (mm: number): string => mm.toFixed(9).replace(/0+$/, '');

/** To two digits: it is only a bound. */
export const looseWords = (looseMm: number): string =>
  `Some edges are only within ${shortMm(Number(looseMm.toPrecision(2)))} mm of their faces.`;
