import { contourHeights } from './contour-heights.ts';
import { cutAlongProfile } from './cut-along.ts';
import { cutByPart } from './cut-by.ts';
import { hole } from './hole.ts';
import { keepCut } from './keep-cut.ts';
import { leaveWhole } from './leave-whole.ts';
import { section } from './section.ts';
import { sectionCurve } from './section-curve.ts';
import { slices } from './slices.ts';
import { splitSolid } from './split-solid.ts';
import { trimSolid } from './trim-solid.ts';

/** In the order in which people see them. */
export const CUT = [
  hole,
  splitSolid,
  trimSolid,
  cutAlongProfile,
  cutByPart,
  section,
  leaveWhole,
  keepCut,
  sectionCurve,
  slices,
  contourHeights,
] as const;
