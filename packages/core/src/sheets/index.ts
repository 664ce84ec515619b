/** Drawing sheets. */
export { seenAxes } from './axes.ts';
export { catchesOf } from './catches.ts';
export { composeSheet, type SheetReplies } from './compose.ts';
export { INK, LIGHT_FILL, STROKES, type Mark, type SheetPicture, type Stroke } from './marks.ts';
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
export { dowelHoles } from './dowels.ts';
export { unitedOutlines } from './layers.ts';
export { overlappingIn } from './overlapping.ts';
export { withSecondLook } from './secondLook.ts';
export { partsShown } from './titleBlock.ts';
export { tiesOfSheet } from './ties.ts';
