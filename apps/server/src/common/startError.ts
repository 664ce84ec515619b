/** A start that cannot go on, and why: for the operator, without a stack. */
export class StartError extends Error {}
