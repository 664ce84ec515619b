/** Drawing sheets. */
export { seenAxes } from './axes.ts';
export { catchesOf } from './catches.ts';
export { composeSheet, type SheetReplies } from './compose.ts';
export { INK, LIGHT_FILL, STROKES, widthOf, type Mark, type SheetPicture, type Stroke } from './marks.ts';
export { frameOfView, LOOK_WORDS, onPaper, viewNamed } from './looks.ts';
export {
  PAPER_CHOICES,
  PAPER_SIZES,
  SCALES,
  formatScale,
  paperSizeOf,
  paperWords,
  readScale,
  type Paper,
} from './paper.ts';
export { isMeasured, type TiedDimension } from './measuring.ts';
export { drawDimension } from './dimensions.ts';
export { placedThrough } from './placing.ts';
export { dowelHoles } from './dowels.ts';
export { unitedOutlines } from './layers.ts';
export { boxOfCrossing, buriedPieces, doCross } from './crossing.ts';
export { notDrawnYet, secondLook } from './secondLook.ts';
export { partsShown } from './titleBlock.ts';
export { locateTie, tiesOfSheet, viewNow } from './ties.ts';
