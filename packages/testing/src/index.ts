/** What tests of all packages share: documents from statements, random numbers, and how many trials a test makes. */
export { built, builtBy, idOf, measured, said, type Statement } from './statements.ts';
export { numbers } from './random.ts';
export { isEveryTrial, trials } from './trials.ts';
