/** What a sentence is given: numbers and names, by the names that stand in the sentence. */
export type Facts<Names extends string> = Readonly<Record<Names, string | number>>;
