import { declareStep } from './declare.ts';

/** What was the inside of a surface is its outside. */
export const turnOver = declareStep('turnOver', {}, { title: () => 'Turned inside out' });
