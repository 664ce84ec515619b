/** British English sentences: numbers of recipes that do not go together. */
import type { Facts } from './facts.ts';

export const RECIPE_SENTENCES = {
  'figure.arc-sweep': () => 'An arc goes on for more than 0° and at most 360°.',
  'figure.curve-doubled': () => 'Two points of the curve that follow each other are the same.',
  'figure.leg-back': ({ row, leg, next }: Facts<'row' | 'leg' | 'next'>) =>
    `Row ${row}: ${next} goes straight back over ${leg}.`,
  'figure.leg-bent': ({ row, leg, next }: Facts<'row' | 'leg' | 'next'>) =>
    `Row ${row}: Corners beside a bent leg cannot be rounded: ${leg} or ${next} is bent.`,
  'figure.leg-empty': ({ row }: Facts<'row'>) => `Row ${row}: this leg has no length.`,
  'figure.leg-short': ({ row, leg }: Facts<'row' | 'leg'>) =>
    `Row ${row}: The corners at the ends of ${leg} need more than its length.`,
  'figure.no-size': () => 'It would have no size.',
  'figure.nothing': () => 'There is nothing to draw.',
  'figure.rectangle-round': () => 'Its corners are rounder than its sides are long.',
  'recipe.cap-high': () => 'A cap is lower than the whole ball.',
  'recipe.chamfer-angle': () => 'The angle must be less than 90°.',
  'recipe.chamfer-both': () => 'Give a second width or an angle, not both.',
  'recipe.clearance-0': () => 'A clearance of 0 would change nothing.',
  'recipe.distance-0': () => 'A distance of 0 would change nothing.',
  'recipe.fillet-both': () => 'Give each edge a radius, or let one grow along them, not both.',
  'recipe.fillet-many': ({ count, edges }: Facts<'count' | 'edges'>) =>
    `There are ${count} radii for ${edges} edges or rules.`,
  'recipe.loft-closed': () => 'A loft that comes back to its first section needs three or more.',
  'recipe.loft-guides': () => 'A loft with guides leads from one section to another.',
  'recipe.pyramid-prism': () => 'A pyramid whose top is as wide as its bottom is a prism: make that.',
  'recipe.raise-draft': ({ max }: Facts<'max'>) => `A draft is less than ${max}°.`,
  'recipe.raise-flat': () => 'It would have no height.',
  'recipe.raise-surface': () => 'A surface has no draft.',
  'recipe.revolve-angle': () => 'It turns by more than 0° and at most 360°, either way.',
  'recipe.shell-many': ({ count, faces }: Facts<'count' | 'faces'>) =>
    `There are ${count} thicknesses for ${faces} other faces.`,
  'recipe.shell-outward': () =>
    'A closed hollow has its wall inward: choose a face to leave open, or inward.',
  'recipe.shell-thickness': () => 'Say how thick the wall of the other faces is.',
  'recipe.soften-many': ({ count, edges }: Facts<'count' | 'edges'>) =>
    `There are ${count} sharpnesses for ${edges} edges or rules.`,
  'recipe.soften-percent': ({ most }: Facts<'most'>) => `Each sharpness is from 1 to ${most} percent.`,
  'recipe.torus-thick': () => 'It would run into itself: make it thinner than its diameter.',
  'recipe.tube-bore': () => 'The bore must be smaller than the diameter.',
  'recipe.wedge-top': () => 'The top is from 0 to the length of the bottom.',
};
