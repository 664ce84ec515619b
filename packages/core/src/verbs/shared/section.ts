/** Verbs of a group that stand together under a head, where the group has many. */
import type { Verb } from '../../statement/declare.ts';

export interface Section {
  /** None where the group has no heads. */
  readonly head?: string;
  readonly verbs: readonly Verb[];
}

export const section = (head: string, verbs: readonly unknown[]): Section => ({
  head,
  verbs: verbs as readonly Verb[],
});
