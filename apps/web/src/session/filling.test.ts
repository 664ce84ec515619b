import { emptyDocument, isRefusal, perform, plainWorld, verbNamed, type KadrelDocument } from '@kadrel/core';
import { fromSelection } from './filling.ts';

function withSection(): { document: KadrelDocument; ids: Record<string, string> } {
  let document = emptyDocument();
  let count = 0;
  for (const [verb, typed] of [
    ['box', { as: 'a', size: [1, 2, 3] }],
    ['box', { as: 'b', size: [1, 2, 3] }],
    ['section', { as: 's', on: 'plan' }],
  ] as const) {
    const done = perform(
      verbNamed(verb)!,
      typed,
      document,
      plainWorld(document, () => `p${++count}`),
    );
    if (isRefusal(done)) throw new Error(done.message);
    document = done.document;
  }
  const ids = Object.fromEntries(Object.values(document.items).map(({ name, id }) => [name, id]));
  return { document, ids };
}

test('of what is selected the section plane goes into its own blank, and the rest into that for parts', () => {
  const { document, ids } = withSection();
  const { a, b, s } = ids as Record<'a' | 'b' | 's', string>;
  const filled = (verb: string, ...selection: string[]) => fromSelection({ selection, document }, verb);
  expect(filled('keep-cut', s)).toEqual({ section: s });
  expect(filled('leave-whole', a, s, b)).toEqual({ section: s, parts: [a, b] });
  expect(filled('leave-whole', a)).toEqual({ parts: [a] });
  expect(filled('slices', a, b)).toEqual({ parts: [a, b] });
  expect(filled('slices')).toEqual({});
});
