/** Reports as files: a table, or pages for print. */
import { writeFileSync } from 'node:fs';
import { csvOf, reportPages, type WrittenReport } from '@kadrel/core';
import { sheetExporterFor } from '@kadrel/kernel';
import { UsageError } from './usage.ts';

/** Throws UsageError where no report is written so. */
export function requireReportFile(path: string): void {
  if (!/\.(csv|pdf)$/i.test(path)) throw new UsageError(`${path}: a report is written as .csv or .pdf.`);
}

/** To each of the files. */
export async function writeReport(paths: readonly string[], report: WrittenReport): Promise<void> {
  for (const path of paths) {
    const isTable = path.toLowerCase().endsWith('.csv');
    const written = isTable
      ? csvOf(report.findings)
      : await sheetExporterFor('.pdf')!.write(reportPages(report));
    writeFileSync(path, written);
  }
}
