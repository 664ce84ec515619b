/** Whether parts can be printed, cut or milled. */
export { bedTurn, fitsBed } from './bed.ts';
export { USUAL_LIMITS, type MakeLimits } from './limits.ts';
export { MATERIALS, massOf, type Material } from '../document/materials.ts';
export { facetCorners, type Corners } from '../snapping/facetCorners.ts';
export { areaOf, middleOf, normalOf, piecesOf, type Piece } from './pieces.ts';
export { MAKE_KINDS, makeReport } from './report.ts';
export { sizesOf, soundingAt, thinnestSounding, type Place } from './soundings.ts';
export { footingOf, groundOf, hullOf, islandsOf, overhangOf } from './standing.ts';
export { surveyMaking, type MakeScope, type MakeSurveyed } from './survey.ts';
