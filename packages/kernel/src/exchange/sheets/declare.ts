/** What a format that drawing sheets are written in is: declared once, for the page and the headless runner alike. */
import type { SheetPicture } from '@kadrel/core';

/** A format that drawing sheets are written in. */
export interface SheetExporter {
  readonly format: string;
  readonly name: string;
  /** One line for whoever chooses. */
  readonly about: string;
  /** With its point, in lower case. */
  readonly extension: string;
  readonly mime: string;
  /** Several sheets go into one file; otherwise one is written. */
  readonly holdsMany: boolean;
  /** Throws FormatError. */
  write(pictures: readonly SheetPicture[]): Promise<string | Uint8Array>;
}
