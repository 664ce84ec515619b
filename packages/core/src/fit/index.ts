/** Whether parts go together. */
export { CLEARANCE_SERIES, THREADS, clearanceHole } from './iso273.ts';
export { deviationsOf, isoFit, type Deviations, type IsoFit } from './iso286.ts';
export { judgeFit, judgeMeasure, measureWords, measuredValue, type Verdict } from './judge.ts';
export { nearBoxes } from './nearBoxes.ts';
export { nearFaces, type NearFaces, type Nearness, type PlacedShape } from './nearFaces.ts';
export { clippedToTriangle, pointOver, stripWidth } from './overlay.ts';
export { FINDING_WORDS, type Finding, type FindingKind, type Remedy } from './finding.ts';
export { fitReport, type FitReport } from './report.ts';
export { csvOf, reportPages, type WrittenReport } from './reportFiles.ts';
export { USUAL_SCOPE, surveyChecks, surveyFit, type Asking, type Scope, type Surveyed } from './survey.ts';
