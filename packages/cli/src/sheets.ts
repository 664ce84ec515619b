/** Drawing sheets as files. */
import { writeFileSync } from 'node:fs';
import { sheetNamed, sheetsOf, type KadrelDocument, type Sheet } from '@kadrel/core';
import { pictureOfSheet, sheetExporterFor, type Evaluator, type SheetExporter } from '@kadrel/kernel';
import { LedgerError } from './ledger.ts';
import { sheetPng } from './sheetPng.ts';
import { UsageError } from './usage.ts';

export interface SheetOutput {
  readonly document: KadrelDocument;
  readonly kernel: Evaluator;
  /** Those that were named; all where none was. */
  readonly sheets: readonly Sheet[];
  /** Of pictures; the usual ones where nothing is said. */
  readonly pixelsPerInch?: number | undefined;
}

const exporterFor = (path: string, pixelsPerInch?: number): SheetExporter | undefined =>
  path.toLowerCase().endsWith('.png') ? sheetPng(pixelsPerInch) : sheetExporterFor(path);

/** Files that hold nothing else, and the others where sheets were named. */
export const isForSheets = (path: string, sheets: readonly Sheet[]): boolean => {
  const exporter = exporterFor(path);
  return exporter !== undefined && (exporter.holdsMany || sheets.length > 0);
};

/** Throws UsageError. */
export function requireSheet(document: KadrelDocument, name: string): Sheet {
  const sheet = sheetNamed(document, name);
  if (!sheet) throw new UsageError(`There is no sheet named ${name}.`);
  return sheet;
}

/** What is wrong on them is reported on standard error. Throws LedgerError. */
export async function writeSheets(
  path: string,
  { document, kernel, sheets, pixelsPerInch }: SheetOutput,
): Promise<void> {
  const exporter = exporterFor(path, pixelsPerInch)!;
  const wanted = sheets.length > 0 ? sheets : sheetsOf(document);
  if (wanted.length === 0) throw new LedgerError(`${path}: there is no sheet to write. Make one with Sheet.`);
  if (wanted.length > 1 && !exporter.holdsMany)
    throw new UsageError(`${path} holds one sheet: name it with --sheet, or write a .pdf of several.`);
  const pictures = wanted.map((sheet) => pictureOfSheet(kernel, document, sheet));
  for (const { name, faults } of pictures)
    for (const { words } of faults) process.stderr.write(`Warning: ${name}: ${words}\n`);
  writeFileSync(path, await exporter.write(pictures));
}
