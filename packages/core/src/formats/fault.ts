import { reasonOf, type AnyFacts, type Reason, type ReasonCode } from '../language/reason.ts';

/** A file that cannot be read or written, and why. */
export class FormatError extends Error implements Reason {
  readonly code: ReasonCode;
  readonly facts: AnyFacts;

  constructor({ code, facts, message }: Reason) {
    super(message);
    this.name = 'FormatError';
    this.code = code;
    this.facts = facts;
  }
}

/** Longer drawings are refused before they are looked into: they would hold up the page. */
export const MAX_FILE_CHARACTERS = 8_000_000;

/** Throws FormatError where a file is empty. */
export function requireText(text: string, what: string): void {
  if (text.trim() === '') throw new FormatError(reasonOf('file.empty', { what }));
  if (text.length > MAX_FILE_CHARACTERS)
    throw new FormatError(reasonOf('file.long', { what, millions: Math.round(text.length / 1e6) }));
}
