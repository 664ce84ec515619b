import { declareStep } from './declare.ts';

/** The flat openings of a surface are closed, so that it becomes a body. */
export const close = declareStep('close', {}, { title: () => 'Ends capped' });
