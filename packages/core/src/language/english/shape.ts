/** British English sentences: steps of shape. */

export const SHAPE_SENTENCES = {
  'missing.goes': () => 'Say what goes there.',
  'missing.where': () => 'Say where it goes.',
  'no-move': () => 'A move of 0 would change nothing.',
  'not-positive.depth': () => 'The depth must be more than zero.',
};
