import { said } from '@kadrel/testing';
import type { Typed } from '../statement/resolving.ts';
import { emptyDocument } from './items.ts';

// Once it wrote to every part and pattern, so that it met whatever somebody else did meanwhile.
test('a variable that changes writes to what is told by it, and to nothing else', () => {
  let { document } = said(emptyDocument(), 'variable', { name: 'wide', value: '10 mm' });
  for (const [verb, typed] of [
    ['box', { as: 'told', size: ['wide', '2', '3'] }],
    ['box', { as: 'plain', size: ['1', '2', '3'], at: ['20', '0', '0'] }],
    ['cylinder', { as: 'round', diameter: '4', height: '5', at: ['40', '0', '0'] }],
    ['grid', { as: 'holes', parts: ['plain'], columns: '3', columnPitch: '9' }],
  ] as const)
    ({ document } = said(document, verb, typed));
  const followed = Object.values(document.items).find(({ name }) => name === 'told')!.id;
  const written = (typed: Typed) =>
    said(document, 'variable', typed).patches.map(({ path }) => path.slice(0, 2).join('.'));
  expect(written({ name: 'other', value: '3 mm' })).toEqual(['variables.other']);
  expect(new Set(written({ name: 'wide', value: '12 mm' }))).toEqual(
    new Set(['variables.wide', `items.${followed}`]),
  );
});
