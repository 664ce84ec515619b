/** What was asked for cannot be meant; the usage follows. */
export class UsageError extends Error {}
