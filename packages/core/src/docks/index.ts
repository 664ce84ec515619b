export { dockFrame, frameOut, namedPlace, numberedFrame } from './frames.ts';
export { carrierOf, docksIn, docksOn, placeOfEnd, type DockPlace, type ShapeOf } from './places.ts';
export { CLOSED_DEGREES, apart, jointFrame, partPose, wantedPose, type JointNumbers } from './joining.ts';
export {
  docksReport,
  matches,
  matchingDocks,
  misfitOf,
  takenDocks,
  type DockReport,
  type JointReport,
} from './report.ts';
