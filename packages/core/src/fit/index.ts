/** Whether parts go together. */
export { nearBoxes } from './nearBoxes.ts';
export { nearFaces, type NearFaces, type Nearness, type PlacedShape } from './nearFaces.ts';
export { clippedToTriangle, isWithin, pointOver, stripWidth } from './overlay.ts';
