/** British English sentences: combining. */

export const COMBINE_SENTENCES = {
  'not-positive.clearance': () => 'The clearance must be more than zero.',
  'too-few.parts-pattern': () => 'Parts: choose at least 2, or a pattern or a group.',
};
