/** A file that cannot be read, in a sentence that says what is wrong with it. */
export class FormatError extends Error {
  constructor(message: string) {
    super(message);
    this.name = 'FormatError';
  }
}

/** Longer drawings are refused before they are looked into: they would hold up the page. */
export const MAX_FILE_CHARACTERS = 8_000_000;

/** Throws FormatError where a file is empty. */
export function requireText(text: string, what: string): void {
  if (text.trim() === '') throw new FormatError(`This ${what} file is empty.`);
  if (text.length > MAX_FILE_CHARACTERS)
    throw new FormatError(
      `This ${what} file has ${Math.round(text.length / 1e6)} million characters; at most 8 million are read.`,
    );
}
