/** British English sentences: what cannot be answered of solids. What is wrong, and what to do. */
import type { Facts } from '../facts.ts';
import type { FaultSentences } from './sentences.ts';

export const ANSWERS_FAULTS = {
  'measured.gone': () => ['What was measured is not there any more.', 'Choose what is measured anew.'],
  'measured.gone-of': ({ name, what }: Facts<'name' | 'what'>) => [
    `${name} has no ${what} any more.`,
    'Choose what is measured anew.',
  ],
  'measured.no-flat-face': () => [
    'This part has no such flat face in the plane.',
    'Pick one of its flat faces.',
  ],
  'measured.refused': ({ message }: Facts<'message'>) => [`${message}`, 'Choose what is measured anew.'],
  'path.branches': () => [
    'Its edges are not one path from end to end.',
    'Choose an edge, or a drawn line that does not branch.',
  ],
  'path.no-way-along': () => ['How far that is along the path cannot be told.', 'Choose points on it.'],
  'outline.no-room': ({ by }: Facts<'by'>) => [
    `There is no room for an outline ${by} mm away.`,
    'Make the distance smaller, or go to the other side.',
  ],
  'outline.no-shadow': () => [
    'This part casts no shadow on the plane.',
    'Choose another plane, or another part.',
  ],
  'outline.not-followed': () => [
    'These outlines cannot be followed at this distance.',
    'Make the distance smaller than their tightest bend, or choose one outline.',
  ],
  'outline.plane-misses': () => ['The plane does not meet this part.', 'Move the plane into the part.'],
  'outline.several-planes': () => [
    'These profiles do not lie in one plane.',
    'Choose profiles of one plane.',
  ],
  'sheet.no-sheet': () => ['There is no such sheet any more.', 'Open another one.'],
  'sheet.no-view': () => ['There is no such view any more.', 'Open the sheet again.'],
  'fit.no-solid': () => ['There is no such solid any more.', 'Ask again.'],
} satisfies FaultSentences;
