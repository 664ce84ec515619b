import { declareStep } from './declare.ts';

/** All that was made so far, mirrored in the part's own X. */
export const mirror = declareStep('mirror', {}, { title: () => 'Mirrored' });
