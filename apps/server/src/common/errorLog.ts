/** What is logged of an error: its kind and where it came from, and nothing that people typed, sent or are called. */

/** A database tells more than it should: statements and the values in them are left out. */
export function loggedError(error: unknown): string {
  if (!(error instanceof Error)) return `Something that is no error was thrown: ${typeof error}`;
  const code = codeOf(error);
  const frames = (error.stack ?? '').split('\n').filter((line) => /^\s+at /.test(line));
  return [`${error.name}${code === undefined ? '' : ` (${code})`}`, ...frames.slice(0, 12)].join('\n');
}

/** The code of an error, where it has one. */
export const codeOf = (error: unknown): string | undefined =>
  typeof error === 'object' && error !== null && 'code' in error && typeof error.code === 'string'
    ? error.code
    : undefined;

/**
 * The database is busy, ending or away: the same request may go through later. Source: PostgreSQL documentation, appendix A, error
 * codes: 08 connections, 40 rollbacks, 53 resources, 55P03 locks, 57 interventions.
 */
export const isBusy = (error: unknown): boolean => {
  const code = codeOf(error) ?? '';
  const isKnex = error instanceof Error && error.name === 'KnexTimeoutError';
  return isKnex || /^(08|40|53|57)|^55P03$|^ECONN|^ETIMEDOUT$/.test(code);
};
