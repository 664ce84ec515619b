/** British English sentences: what cannot be built of bodies from profiles. What is wrong, and what to do. */
import type { Facts } from '../facts.ts';
import type { FaultSentences } from './sentences.ts';

const LEAN_LESS = 'Make the draft or the height smaller; free curves cannot lean.';

export const BODIES_FAULTS = {
  'profile.planes-apart': ({ name }: Facts<'name'>) => [
    `The profiles on ${name} no longer lie in one plane.`,
    'Move them into one plane again.',
  ],
  'profile.several-planes': ({ names }: Facts<'names'>) => [
    `${names} do not lie in one plane.`,
    'Move them into one plane, or raise them one by one.',
  ],
  'profile.step': ({ step, name, why }: Facts<'step' | 'name' | 'why'>) => [
    `Step ${step} of ${name} can no longer be applied: ${why}`,
    'Change its number, or take the step out.',
  ],
  'curves.do-not-join': () => ['The curves of the profile do not join.', 'Close the gaps between them.'],
  'curves.no-length': () => ['One of the drawn curves has no length.', 'Take it out of the profile.'],
  'regions.gone': () => [
    'A region that this was made from is no longer there.',
    'Undo the change of the profile, or pick the region again.',
  ],
  'regions.no-area': () => [
    'The curves enclose no area.',
    'Close the outline, or look for gaps between its curves.',
  ],
  'regions.not-found': () => [
    'The regions of these curves could not be found.',
    'Take out curves that lie on one another.',
  ],
  'regions.not-joined': () => ['These regions could not be joined.', 'Raise them one by one.'],
  'raise.draft': ({ draft }: Facts<'draft'>) => [`The sides cannot lean by ${draft}° here.`, LEAN_LESS],
  'raise.no-height': () => ['The body has no height.', 'Give it a height, up or down from its plane.'],
  'raise.side-draft': ({ side, draft }: Facts<'side' | 'draft'>) => [
    `The side ${side} cannot lean by ${draft}°.`,
    LEAN_LESS,
  ],
  'revolve.crosses-axis': ({ left, right }: Facts<'left' | 'right'>) => [
    `The profile crosses its axis: it reaches ${left} mm to the left of it and ${right} mm to the right, so that the body would lie in itself.`,
    'Use one half, left or right, or move the axis.',
  ],
  'revolve.half-empty': ({ half }: Facts<'half'>) => [
    `Nothing lies to the ${half} of the axis.`,
    'Use the other half.',
  ],
  'revolve.on-axis': () => ['These curves lie on their axis.', 'Move the axis, or the curves.'],
  'revolve.thickened-pieces': () => [
    'Only what is turned from one outline can be thickened.',
    'Thicken the pieces one by one.',
  ],
  'sweep.bends': () => [
    'The section cannot be carried along this path.',
    'Make the section smaller, or the bends of the path wider.',
  ],
  'sweep.closed-turning': () => [
    'A section that turns or grows does not fit itself where a closed path comes back.',
    'Open the path, or leave the twist and the end size out.',
  ],
  'sweep.corner-turning': () => [
    'A section that turns or grows cannot go round a sharp corner.',
    'Round the corners of the path first.',
  ],
  'sweep.hollow-surface': () => [
    'A hollow surface is two surfaces.',
    'Take the inner outline out, or make a body.',
  ],
  'sweep.path-pieces': ({ pieces }: Facts<'pieces'>) => [
    `The path consists of ${pieces} pieces.`,
    'A path is one curve, or several end to end.',
  ],
  'sweep.upright-along': () => [
    'The path runs in the direction that is to stay upright.',
    'Choose another upright direction, or leave it out.',
  ],
  'loft.guide-ends': () => [
    'A guide does not lead from the first section to the last.',
    'Let its ends lie on both outlines.',
  ],
  'loft.not-joined': () => ['These sections cannot be joined.', 'Move them apart, or make them more alike.'],
  'loft.section-outlines': ({ outer, inner }: Facts<'outer' | 'inner'>) => [
    `A section has ${outer} outlines with ${inner} inside.`,
    'A section is one closed outline, with at most one inside it.',
  ],
  'loft.single-outlines': () => [
    'A surface, or a loft with guides, goes through single outlines.',
    'Take the inner outlines out of the sections.',
  ],
  'loft.some-hollow': () => [
    'Some of the sections have an inner outline, and some have none.',
    'Give every section one, or none of them.',
  ],
  'wall.no-room': ({ by }: Facts<'by'>) => [
    `There is no room for a parallel outline ${by} mm away.`,
    'Make it thinner, or the outline wider.',
  ],
  'wall.not-laid': () => ['The wall could not be laid beside this outline.', 'Make it thinner.'],
  'wall.open-inside': () => [
    'An open outline has no inside.',
    'Say left, right or centred, or close the outline.',
  ],
  'wall.opening-beyond': ({ opening, from, to, length }: Facts<'opening' | 'from' | 'to' | 'length'>) => [
    `Opening ${opening} reaches from ${from} to ${to} mm along a leg of ${length} mm.`,
    'Move it, or make it narrower.',
  ],
  'wall.opening-off': ({ opening, leg, legs }: Facts<'opening' | 'leg' | 'legs'>) => [
    `Opening ${opening} is on leg ${leg}, and there are ${legs}.`,
    'Give the number of a leg.',
  ],
  'wall.opening-on-curve': ({ opening, leg }: Facts<'opening' | 'leg'>) => [
    `Opening ${opening} is on leg ${leg}, which is a free curve.`,
    'Put openings into straight legs and arcs.',
  ],
  'wall.pieces': () => ['A wall stands on one outline.', 'Choose an outline in one piece.'],
} satisfies FaultSentences;
