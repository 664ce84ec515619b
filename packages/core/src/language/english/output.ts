/** British English sentences: sheets. */
import type { Facts } from './facts.ts';

export const OUTPUT_SENTENCES = {
  gone: () => 'What this view shows is not there any more.',
  'missing.several-views': () => 'There are several views on this sheet: say which one it stands in.',
  'missing.several-views-sheet': () => 'There are several views on this sheet: say into which one it points.',
  'missing.leader': ({ name }: Facts<'name'>) => `${name} has no leader: say what it points to.`,
  'missing.paper-side': ({ side }: Facts<'side'>) => `Paper of its own size needs a ${side}.`,
  'missing.view-of-north': () => 'There are several views on this sheet: say for which one the arrow is.',
  'name-taken.sheet-already': ({ to }: Facts<'to'>) => `There is a ${to} on this sheet already.`,
  'name-taken.sheet-named': ({ to }: Facts<'to'>) =>
    `There is a sheet named ${to} already. Choose another name.`,
  'no-north': () => 'This view looks along north: an arrow would have no length in it.',
  'north-arrow': ({ name }: Facts<'name'>) =>
    `${name} is a north arrow: only its letter and its place can be changed.`,
  'missing.view-of-detail': () => 'There are several views on this sheet: say which one it is a detail of.',
  'no-layer.dowel': ({ number }: Facts<'number'>) =>
    `Dowel ${number} goes through no layer with card all round it: put it elsewhere, or make it narrower.`,
  'places.dowels': () => 'Dowels are given by their places: two or more points.',
  'no-detail.layer': () => 'A layer to be cut out has no details: take another view.',
  'not-measured': ({ words }: Facts<'words'>) => `This cannot be measured here: ${words}.`,
  'paper-size': ({ side, from, to }: Facts<'side' | 'from' | 'to'>) =>
    `The ${side} of paper must be between ${from} and ${to} mm.`,
  'too-large.paper': () => 'The views do not fit at any usual scale. Draw fewer parts, or take larger paper.',
  'too-large.views-need': ({ scale, wanted, room, words }: Facts<'scale' | 'wanted' | 'room' | 'words'>) =>
    `At ${scale} the views need ${wanted}; this paper has ${room}. Take larger paper${words}.`,
  'too-many.leader': () => 'A leader points to one place.',
  'unknown-view.kept': ({ kept }: Facts<'kept'>) => `There is no view kept as ${kept}.`,
};
