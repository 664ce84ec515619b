/** British English sentences: cutting, drilling and slicing. */
import type { Facts } from './facts.ts';

export const CUT_SENTENCES = {
  'itself.cut': ({ name }: Facts<'name'>) => `${name} cannot be cut by itself: choose another part.`,
  'itself.made-from': ({ name, part }: Facts<'name' | 'part'>) =>
    `${name} is made from ${part}: choose a part that is not.`,
  'line.bent': () =>
    'A cut lengthwise goes along one straight line: choose such a line, or cut crosswise along this path.',
  'line.looked-along': () => 'The line points straight out of this plane: look at it in another one.',
  'missing.thread': () => 'Say which bolt it is for, or how wide it is.',
  'no-profile': ({ name }: Facts<'name'>) => `${name} holds no drawn lines: choose slices or profiles.`,
  'no-solid': ({ name }: Facts<'name'>) => `${name} encloses nothing: choose a solid to cut by.`,
  'nothing.curves': () => 'Nothing is cut there: move the line or the plane into the parts.',
  'nothing.section': ({ name }: Facts<'name'>) => `${name} cuts nothing there: move it into the parts.`,
  'nothing.slices': () => 'The slices meet nothing of these parts.',
  'nothing.to-cut': () => 'There is no solid to cut: make one, or show one that is hidden.',
  'part.drilled': () => 'Say what is drilled: pick a place of it, or fill in the part.',
  'surface.at': () => 'This place is on no surface: pick a face, an edge or a corner of the part.',
  'too-many.cuts': ({ count, maxCuts }: Facts<'count' | 'maxCuts'>) =>
    `That would be ${count} cuts: say 1 to ${maxCuts}.`,
  view: ({ unknown, sectionViews }: Facts<'unknown' | 'sectionViews'>) =>
    `There is no view ${unknown}: say some of ${sectionViews}.`,
  'whole.several': ({ name }: Facts<'name'>) => `${name} is several solids: drill one of its parts.`,
};
