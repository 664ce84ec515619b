/** How many random trials a test makes. */

/** All of them in `npm run torture -- checks`; a share of them in `npm test`, which people wait for. */
export const isEveryTrial: boolean = process.env.KADREL_TRIALS === 'all';

const SHARE = 1 / 10;

/** @param all how many are made where nobody waits for them */
export const trials = (all: number): number => (isEveryTrial ? all : Math.ceil(all * SHARE));
