import { emptyDocument } from '../document/items.ts';
import { DOCUMENT_VERSION, type KadrelDocument } from '../document/schema.ts';
import { said } from '@kadrel/testing';
import type { Typed } from '../statement/resolving.ts';
import { stepBack, type Edit } from './edit.ts';
import { isEditFault } from './patching.ts';
import { sealEdits, type History } from './sealing.ts';

let ids = 0;
function stated(document: KadrelDocument, verb: string, typed: Typed) {
  const done = said(document, verb, typed);
  const line = { verb, values: typed as Edit['line']['values'], title: done.title, author: 'Eve', time: 50 };
  const edit: Edit = {
    id: `edit-${String(++ids).padStart(4, '0')}`,
    kind: 'do',
    patches: done.patches,
    inverses: done.inverses,
    line,
  };
  return { edit, document: done.document };
}
const history: History = { author: 'Ada', now: 100, lastTime: 10, source: () => undefined };
function sealed(document: KadrelDocument, edits: readonly Edit[], known: Partial<History> = {}) {
  const done = sealEdits(document, edits, { ...history, ...known });
  if (isEditFault(done)) throw new Error(done.message);
  return done;
}
const start = emptyDocument();
const box = stated(start, 'box', { as: 'a', size: [1, 2, 3] });
const cone = stated(box.document, 'cone', { as: 'b', diameter: 4, height: 9 });
const back = stepBack([box.edit, cone.edit], 'undo', { id: 'back-0001', time: 60, author: 'Eve' })!;

test('who made an edit, when, and what takes it back are set, whatever the page says', () => {
  const forged = [
    { ...box.edit, inverses: [], of: 'something', line: { ...box.edit.line, author: 'Bob', time: 5 } },
    { ...cone.edit, line: { ...cone.edit.line, time: 9e12 } },
  ];
  const { edits, document } = sealed(start, forged);
  expect(document).toEqual(cone.document);
  expect(edits.map(({ line }) => [line.author, line.time])).toEqual([
    ['Ada', 10],
    ['Ada', 100],
  ]);
  expect(edits[0]).not.toHaveProperty('of');
  expect(edits.map(({ version }) => version)).toEqual([DOCUMENT_VERSION, DOCUMENT_VERSION]);
  const undone = edits
    .toReversed()
    .map(({ inverses }, i) => ({ ...box.edit, id: `undo-000${i}`, patches: inverses }));
  expect(sealed(document, undone).document).toEqual(start);
});

test('an undo is about a statement in force, a redo about one that is taken back, and each does just that', () => {
  const again: Edit = { ...back, id: 'again-001', kind: 'redo', patches: cone.edit.patches };
  expect(sealed(start, [box.edit, cone.edit, back, again]).document).toEqual(cone.document);
  expect(sealed(start, [box.edit, cone.edit, back]).edits.at(-1)).toMatchObject({
    of: cone.edit.id,
    line: { title: cone.edit.line.title, author: 'Ada' },
  });
  const source = (isInForce: boolean) => (id: string) =>
    id === cone.edit.id ? { edit: cone.edit, isInForce } : undefined;
  expect(sealed(cone.document, [back], { source: source(true) }).document).toEqual(box.document);
  const words = (edits: Edit[], known: Partial<History> = {}) => {
    const done = sealEdits(cone.document, edits, { ...history, ...known });
    return isEditFault(done) ? done.message : 'taken';
  };
  expect(words([back])).toMatch(/a statement that the project does not have/);
  expect(words([back], { source: source(false) })).toMatch(/taken back already/);
  expect(words([{ ...back, kind: 'redo', patches: [] }], { source: source(true) })).toMatch(
    /in force already/,
  );
  const forged = [{ ...back, patches: box.edit.inverses }];
  expect(sealed(cone.document, forged, { source: source(true) })).toMatchObject({
    document: box.document,
    edits: [{ patches: cone.edit.inverses }],
  });
});
