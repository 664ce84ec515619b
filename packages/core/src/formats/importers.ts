/** The formats that outlines are read from, in the order in which they are listed: the page and the headless runner read this list. */
import type { Drawing } from './drawing.ts';
import { readDxf } from './dxf.ts';
import { readSvg } from './svg.ts';

/** A format that outlines are read from. */
export interface Importer {
  /** As a statement names it: `{ "svg": text }`. */
  readonly format: string;
  readonly name: string;
  readonly extensions: readonly string[];
  readonly mime?: string;
  /** Throws FormatError. */
  read(this: void, text: string): Drawing;
}

export const IMPORTERS: readonly Importer[] = [
  { format: 'svg', name: 'SVG', extensions: ['.svg'], mime: 'image/svg+xml', read: readSvg },
  { format: 'dxf', name: 'DXF', extensions: ['.dxf'], read: readDxf },
];

/** The importer for a file, by the end of its name. */
export const importerFor = (file: string): Importer | undefined =>
  IMPORTERS.find(({ extensions }) => extensions.some((end) => file.toLowerCase().endsWith(end)));
