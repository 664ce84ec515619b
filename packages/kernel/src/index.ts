/** What other packages may use of the kernel, apart from loading it (./node, ./browser). */
export { Evaluator, type Evaluation, type EvaluateOptions, faceNamesOf } from './evaluate.ts';
export type { PartMeasure } from './parts.ts';
export type { Failure, PartNotice } from './problems.ts';
export type { ShapeFacts } from './shapes.ts';
export { BuildError } from './occt/occt.ts';
export { KernelHost, type HostOptions, type HostState } from './host.ts';
export type { Measures } from './facts/measure.ts';
export { EXPORTERS, exporterFor, exporterNamed } from './exchange/index.ts';
export { SHEET_EXPORTERS, sheetExporterFor } from './exchange/sheets/index.ts';
export { marksAsSvg, svgOfSheet } from './exchange/sheets/svg.ts';
export type { SheetExporter } from './exchange/sheets/declare.ts';
export { fitReportOf, makeReportOf } from './reportsOf.ts';
export { pictureOfSheet } from './pictureOfSheet.ts';
export { rawDistance } from './rawDistance.ts';
export type { Exporter, Exporting } from './exchange/declare.ts';
export { worldOf } from './world.ts';
export { contentOf } from './content/content.ts';
export { keyOf } from './content/key.ts';
