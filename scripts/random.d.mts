/** Numbers between 0 and 1 that a seed decides. */
export function randomOf(seed: number): () => number;
