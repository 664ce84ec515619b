/** Every format that drawing sheets are written in, in the order in which people see them. */
import type { SheetExporter } from './declare.ts';
import { sheetDxf } from './dxf.ts';
import { sheetPdf } from './pdf.ts';
import { sheetSvg } from './svg.ts';

/** All formats of sheets that need no page. */
export const SHEET_EXPORTERS: readonly SheetExporter[] = [sheetPdf, sheetSvg, sheetDxf];

/** By the ending of a file’s name; undefined where sheets are not written so. */
export const sheetExporterFor = (path: string): SheetExporter | undefined =>
  SHEET_EXPORTERS.find(({ extension }) => path.toLowerCase().endsWith(extension));
