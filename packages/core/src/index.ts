/** What the other packages may use of the core. */
export * from './quantity/units.ts';
export { QuantityError } from './quantity/lexer.ts';
export { readQuantity, readVariable, type Quantity, type QuantityContext } from './quantity/evaluate.ts';
export * from './quantity/format.ts';
export { solveVariables, variableNameFault } from './quantity/variables.ts';
export { variablesOf } from './document/variables.ts';
export { withChangedItems } from './document/changed.ts';
export { variableUses } from './document/variableUses.ts';
export * from './space/vector.ts';
export * from './space/angle.ts';
export * from './space/pose.ts';
export { runningOn, type EdgeEnd } from './space/running.ts';
export * from './space/box.ts';
export * from './space/polygon.ts';
export * from './space/plane.ts';
export * from './space/camera.ts';
export * from './space/matrix.ts';
export { GAUSS } from './space/gauss.ts';
export { cleanLength, roundAngle, roundLength } from './space/rounding.ts';
export { buildBvh, searchBvh, searchPairs, type Bvh } from './space/bvh.ts';
export { entriesRead, type Gesture, type Reading } from './gestures/gesture.ts';
export * from './document/schema.ts';
export {
  DIMENSION_KINDS,
  ENTRY_KINDS,
  STANDARD_LOOKS,
  TITLE_FIELDS,
  inOrder,
  sheetNamed,
  sheetsOf,
  type Dimension,
  type Sheet,
  type SheetNote,
  type SheetView,
  type Tie,
} from './document/sheet.ts';
export {
  MEASURED,
  OF_ONE,
  WANTED,
  inOrderMade,
  type Fit,
  type Meant,
  type Measure,
  type MeasuredKind,
  type Target,
  type WantedKind,
} from './document/fit.ts';
export { DOCK_ROLES, docksInOrder, isSameEnd, type Dock, type DockEnd, type Joint } from './document/dock.ts';
export * from './docks/index.ts';
export * from './racks/index.ts';
export { starterPart, starterRack } from './starter/index.ts';
export {
  rackFileSchema,
  rackPartSchema,
  type Parameter,
  type RackFile,
  type RackPart,
} from './document/rack.ts';
export * from './sheets/index.ts';
export * from './fit/index.ts';
export * from './making/index.ts';
export type {
  Footing,
  MakeFacts,
  Overhang,
  Round,
  CutSheet,
  InnerCorner,
  Sounding,
  WallMap,
} from './questions/makeFacts.ts';
export type {
  Contact,
  Fall,
  MeasuredFacts,
  Nearby,
  Overlap,
  PairFacts,
  Play,
  PlayAlong,
  SolidPair,
  StandingSolid,
} from './questions/fitFacts.ts';
export { NewerVersionError, readDocument } from './document/migrations.ts';
export * from './document/items.ts';
export type { Layout, LayoutOf, MemberKey, Spacing, WayCurve } from './recipes/layouts/index.ts';
export * from './patterns/members.ts';
export * from './patterns/placed.ts';
export { carryPlaced } from './patterns/placement.ts';
export * from './document/naming.ts';
export {
  isBody,
  isFlat,
  isSurface,
  loftWays,
  referencesIn,
  toolsIn,
  type BodyBase,
  type BodyOf,
  type Opening,
  type Region2,
  type RecipeStep,
  type Regions,
  type Tier,
} from './recipes/bodies/index.ts';
export * from './space/vector2.ts';
export * from './curves/curve.ts';
export * from './curves/flattened.ts';
export {
  depthAt,
  gapsOf,
  outlineOf,
  pathArea,
  pathLength,
  type Gap as OutlineGap,
  type NamedCurve,
  type Path,
} from './profiles/outline.ts';
export * from './profiles/traverse.ts';
export { pathText, readSvg, writeSvg } from './formats/svg.ts';
export { IMPORTERS, importerFor } from './formats/importers.ts';
export { entityOf, readDxf, writeDxf, type Entity } from './formats/dxf.ts';
export { FONT_WOFF, capitalsShare, missingLetters } from './profiles/text.ts';
export { joined } from './curves/joined.ts';
export { cubicPieces, type CubicPiece } from './curves/cubics.ts';
export type { Drawing } from './formats/drawing.ts';
export type { DrawnPath } from './curves/curve.ts';
export { FormatError } from './formats/fault.ts';
export * from './document/drawn.ts';
export { curvesAlong } from './curves/fitting.ts';
export { throughPoints } from './curves/splines.ts';
export { outlinesOf } from './formats/outlines.ts';
export { cornersOf } from './profiles/corners.ts';
export { filledArea } from './profiles/area.ts';
export { filledDistance } from './profiles/filled.ts';
export { namedPaths } from './profiles/path.ts';
export { offsetOutlines } from './profiles/offset.ts';
export { parallelPath } from './profiles/parallel.ts';
export { boreOf } from './document/bore.ts';
export { fillsPoint } from './curves/triangles.ts';
export { handlesOf, standsAsDrawn } from './profiles/handles.ts';
export { meetings, nearestOn } from './curves/meetings.ts';
export { nearMisses, type NearMiss } from './profiles/gaps.ts';
export { areasOf, insideOf } from './profiles/arrangement.ts';
export { areClear } from './profiles/crossing.ts';
export { loftStarts, matchedOutlines, type PlacedPath } from './profiles/matching.ts';
export { valued, type Valued } from './recipes/numbers.ts';
export { BODIES, SECTION_VIEWS, type SectionView } from './recipes/bodies/index.ts';
export { PLAIN_SOLIDS } from './recipes/primitives/index.ts';
export { blanksIn, piecesIn, withClauses, type Piece } from './statement/template.ts';
export { sentenceCase } from './statement/letters.ts';
export type { Figure, FigureOf, Leg } from './recipes/figures/index.ts';
export { SHAPING, SIZED, baseKind, figureKind, layoutKind, sizedKind } from './recipes/index.ts';
export { builtRecipe, hadStep, isHalf, softenedBy, stepList, withStepsUpTo } from './document/halves.ts';
export { curvesChosen, pointsOfCurve } from './snapping/chosenCurves.ts';
export { radians } from './space/angle.ts';
export {
  CHOSEN_TYPES,
  isChosenType,
  EDGE_RULES,
  type ChosenEdge,
  type ChosenFace,
  type ChosenPlace,
  type EdgeRule,
  type ChosenType,
} from './recipes/chosen.ts';
export {
  blankOf,
  fieldsOf,
  type Field,
  type NumberField,
  type NumbersField,
  type VectorField,
} from './recipes/fields.ts';
export { chosenOfStep } from './verbs/edit/choose-anew.ts';
export {
  isCurveStep,
  numberOfStep,
  referencesOfStep,
  stepKind,
  titleOfStep,
  type CurveStep,
} from './recipes/steps/index.ts';
export { prismCorners } from './recipes/regular.ts';
export * from './history/edit.ts';
export { cleanJson, jsonFault } from './history/json.ts';
export { replay } from './history/replay.ts';
export {
  MAX_CUTS,
  cuttersOf,
  cutsIn,
  cutsOf,
  isCutAway,
  isGone,
  isParted,
  isSection,
  itemsCutBy,
  sectionsIn,
  seenFrom,
  viewsOf,
  type Cut,
  type HalfSpace,
} from './sections/cuts.ts';
export { isInPolygon } from './space/polygon.ts';
export { contourHeightsIn } from './sections/contours.ts';
export { sealEdits, type History, type Source } from './history/sealing.ts';
export { afterEdits, isEditFault, type EditFault } from './history/patching.ts';
export {
  GROUPS,
  type Affine,
  type Blank,
  type Column,
  type BlankType,
  type EdgeFacts,
  type CutFacts,
  type ItemOutlines,
  type MadeFaces,
  type SectionFacts,
  type FaceFacts,
  type DrawnCatch,
  type DrawnLine,
  type DrawnView,
  type TiesFound,
  type Group,
  type Handling,
  type Outcome,
  type Measuring,
  type Question,
  type Refusal,
  type RegionFound,
  type SolidWritten,
  type Replies,
  type Standing,
  type Step,
  type Verb,
} from './statement/declare.ts';
export { Unanswerable, isRefusal, refuse } from './statement/declare.ts';
export { kindOfRefusal } from './refusals/refusal.ts';
export { reasonOf } from './language/reason.ts';
export { faultFor, faultOf, withRemedy, type Fault, type FaultCode } from './language/fault.ts';
export { datumInPart, datumInWorld } from './document/datum.ts';
export { SECTIONS, VERBS, findVerbs, verbNamed } from './verbs/index.ts';
export * from './statement/perform.ts';
export { resolveOne, resolveStatement } from './statement/resolve.ts';
export { quantityReader, type Typed } from './statement/resolving.ts';
export { rackPartMeant } from './statement/racked.ts';
export { wordBlank, wordStatement } from './statement/sentence.ts';
export * from './statement/world.ts';
export { PLANES, type GivenPlane } from './statement/planes.ts';
export { typedRows, type TypedRow } from './statement/rows.ts';
export { rowsOfTraverse } from './verbs/shared/legs.ts';
export { rowsOfCurve, rowsOfOpenings, rowsOfTiers } from './verbs/shared/tables.ts';
export * from './snapping/shape.ts';
export { solidNamed } from './snapping/solidNamed.ts';
export * from './snapping/raycast.ts';
export { curveUnder } from './snapping/curveUnder.ts';
export * from './snapping/snap.ts';
export * from './snapping/scene.ts';
export * from './snapping/resolve.ts';
export * from './snapping/guides.ts';
export * from './snapping/alignment.ts';
export * from './snapping/landing.ts';
export * from './selecting/region.ts';
export * from './selecting/places.ts';
export { isEdgeRule, isRun, onFrom, readSelected } from './statement/chosen.ts';
export { type Point, type Region } from './selecting/outline.ts';
export * from './selecting/alike.ts';
export * from './snapping/locate.ts';
export * from './snapping/feature.ts';
export * from './statement/frames.ts';
export { turnWithin } from './verbs/shared/reshape.ts';
export { linkedWith } from './verbs/shared/tree.ts';
export { measured, type Measured } from './verbs/place/distance.ts';
