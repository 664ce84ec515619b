/** What a fault says: what is wrong, and what to do. */
export type TwoSentences = readonly [reason: string, remedy: string];

/** Sentences by codes. Each is given its own facts. */
export type FaultSentences = Readonly<Record<string, (facts: never) => TwoSentences>>;
