/** Random numbers that a seed decides, so that what once failed can be tried again. */

/** A source of numbers in [0, 1). Source: mulberry32 by T. Ettinger, public domain, from memory. */
export function numbers(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}
