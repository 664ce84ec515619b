/** British English sentences: editing what is there. */
import type { Facts } from './facts.ts';

export const EDIT_SENTENCES = {
  'choice.value': ({ choices }: Facts<'choices'>) => `Choose ${choices}.`,
  'circle.into': ({ name }: Facts<'name'>) => `${name} cannot go into what is below it.`,
  colour: () => 'A colour is written #rrggbb, as in #d9c3a0.',
  'count.from': () => 'The first number is a whole number, 0 or more.',
  datum: () => 'A datum is “own”, or three of -1, 0 and 1 such as “0 0 -1”.',
  'formula.out-of-bounds': ({ where, value, fault }: Facts<'where' | 'value' | 'fault'>) =>
    `${where} is ${value} now; it ${fault}.`,
  'in-use': ({ name, words }: Facts<'name' | 'words'>) =>
    `${name} is used ${words}: give those numbers values of their own first.`,
  large: ({ name }: Facts<'name'>) => `${name} has too many faces to be settled.`,
  'missing.edges': () => 'Say which edges, faces or corners it is about now.',
  'missing.field': () => 'Say which of its numbers becomes that.',
  'missing.parts': () => 'Say which parts are shown: select them first.',
  'missing.take': ({ type }: Facts<'type'>) => `Choose at least one of the ${type}, or take the step out.`,
  'missing.value': ({ name }: Facts<'name'>) => `Say what ${name} becomes.`,
  'name-taken.part-named-already': ({ name }: Facts<'name'>) => `There is a part named ${name} already.`,
  'needed.before': ({ name }: Facts<'name'>) => `${name} is cut from what stands first; that stays first.`,
  'needed.made-delete': ({ name, part }: Facts<'name' | 'part'>) =>
    `${name} is made from ${part}. Delete ${name} instead.`,
  'needed.made-delete-hide': ({ name, part }: Facts<'name' | 'part'>) =>
    `${name} is made from ${part}. Delete ${name} first, or hide ${part}.`,
  'no-box.at': ({ name }: Facts<'name'>) => `The box of ${name} is not known yet. Try again in a moment.`,
  'no-curve': ({ name }: Facts<'name'>) => `${name} is no curve through points.`,
  'no-field.field': ({ name, words }: Facts<'name' | 'words'>) => `This step has no ${name}${words}.`,
  'no-field.step-about': ({ what }: Facts<'what'>) => `This step is about no ${what}.`,
  'no-group': ({ name }: Facts<'name'>) => `${name} is not a group.`,
  'no-loft': ({ name }: Facts<'name'>) => `${name} is no loft.`,
  'no-number': () => 'This step has no number.',
  'no-point.points': ({ name, handles }: Facts<'name' | 'handles'>) => `${name} has ${handles} points.`,
  'no-point.points-own': ({ name }: Facts<'name'>) =>
    `${name} has no points of its own: change its curves by Trim, Corner or Resample.`,
  'no-profile.profile': ({ name }: Facts<'name'>) => `${name} is no profile.`,
  'no-section': ({ name, count }: Facts<'name' | 'count'>) => `${name} has ${count} sections.`,
  'no-step.step': ({ name, count }: Facts<'name' | 'count'>) => `${name} has ${count} steps.`,
  'no-step.to': ({ to }: Facts<'to'>) => `This step cannot become number ${to}.`,
  'no-traverse': ({ name }: Facts<'name'>) => `${name} is no traverse.`,
  'not-taken.parts': ({ name, to }: Facts<'name' | 'to'>) => `${name} was not taken from ${to}.`,
  'not-turned': ({ name }: Facts<'name'>) => `${name} is no turned part.`,
  'operand.into': ({ name }: Facts<'name'>) => `${name} is part of what something else is made from.`,
  'operand.parts': ({ name, owner }: Facts<'name' | 'owner'>) => `${name} is what ${owner} is made from.`,
  'range.angleStep': () => 'The angle step is at most 360°.',
  'range.decimals': () => 'Decimals go from 0 to 9.',
  resized: ({ name }: Facts<'name'>) =>
    `${name} was mirrored or resized: take that step out first, or change its numbers.`,
  'same-part.before': () => 'A part cannot stand before itself.',
  settled: ({ name }: Facts<'name'>) => `${name} is settled already.`,
  size: ({ name, size, sizes }: Facts<'name' | 'size' | 'sizes'>) =>
    `${name} has no size ${size}; it has ${sizes}.`,
  'unknown-variable': ({ name }: Facts<'name'>) => `There is no variable named ${name}.`,
  'unknown-view.view': ({ view }: Facts<'view'>) => `There is no view named ${view}.`,
};
