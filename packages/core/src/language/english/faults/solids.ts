/** British English sentences: what cannot be built of plain solids, and what any solid must be. What is wrong, and what to do. */
import type { Facts } from '../facts.ts';
import type { FaultSentences } from './sentences.ts';

const OF_LEVELS = 'Widths and heights are more than 0; the upper width may be 0.';

export const SOLIDS_FAULTS = {
  'kernel.not-built': () => [
    'The kernel could not build this.',
    'Change a size or a place a little, or take a part away.',
  ],
  'kernel.other-volume': () => [
    'What the kernel built does not have the volume that its sizes come to.',
    'Make its sizes less unlike one another.',
  ],
  'kernel.stopped': ({ poison }: Facts<'poison'>) => [
    `${poison}`,
    'Change one of its sizes or places, or take a part out of it.',
  ],
  'size.out-of-range': ({ what, size }: Facts<'what' | 'size'>) => [
    `The ${what} is ${size} mm.`,
    `Give a ${what} between 0.000001 mm and 100 km.`,
  ],
  'tube.bore': () => ['The bore is as wide as the tube.', 'Make the bore smaller, or the tube wider.'],
  'torus.thick': () => [
    'The ring runs into itself in its middle.',
    'Make its thickness smaller than its diameter.',
  ],
  'wedge.top-long': ({ top, bottom }: Facts<'top' | 'bottom'>) => [
    `The top is ${top} mm long, the bottom ${bottom} mm.`,
    'Make the top shorter.',
  ],
  'cap.high': ({ height, diameter }: Facts<'height' | 'diameter'>) => [
    `The cap is ${height} mm high, and the whole ball ${diameter} mm.`,
    'Make it lower, or use a ball.',
  ],
  'tiers.height': ({ level }: Facts<'level'>) => [
    `Level ${level}: the height is not more than zero.`,
    OF_LEVELS,
  ],
  'tiers.lower-width': ({ level }: Facts<'level'>) => [
    `Level ${level}: the lower width is not more than zero.`,
    OF_LEVELS,
  ],
  'tiers.upper-width': ({ level }: Facts<'level'>) => [
    `Level ${level}: the upper width is less than zero.`,
    OF_LEVELS,
  ],
  'body.misplaced': () => [
    'What the kernel built does not lie where its profile says.',
    'Take out curves that nearly lie on one another.',
  ],
  'body.no-volume': ({ what }: Facts<'what'>) => [
    `${what} has no volume.`,
    'Look for an outline that lies on itself.',
  ],
  'body.not-closed': ({ what }: Facts<'what'>) => [
    `${what} comes to no closed body.`,
    'Close the outline, or look for doubled curves.',
  ],
  'body.open': () => ['What came out is not closed.', 'Change a size a little, or close the profile.'],
  'body.through-itself': () => [
    'The body runs through itself.',
    'Make it thinner, bend it less tightly, or move what crosses apart.',
  ],
  'body.unsound': () => [
    'What came out is no sound solid.',
    'Change a size a little, or simplify the profile.',
  ],
  'body.loose': ({ mm }: Facts<'mm'>) => [
    `Edges would be up to ${mm} mm off their faces here, which is no solid.`,
    'Change a size a little, or choose fewer edges or faces at once.',
  ],
  'settled.unreadable': () => [
    'What was settled cannot be read.',
    'Undo until before it was settled, or take it away.',
  ],
} satisfies FaultSentences;
