import {
  emptyDocument,
  isRefusal,
  perform,
  plainWorld,
  verbNamed,
  type Edit,
  type KadrelDocument,
  type Typed,
} from '@kadrel/core';
import { resume } from './resume.ts';
import type { Left } from './shelf.ts';

let ids = 0;
function said(
  document: KadrelDocument,
  verb: string,
  typed: Typed,
): { edit: Edit; document: KadrelDocument } {
  const done = perform(
    verbNamed(verb)!,
    typed,
    document,
    plainWorld(document, () => `p${++ids}`),
  );
  if (isRefusal(done)) throw new Error(done.message);
  const line = { verb, values: {}, title: done.title, author: 'Ada', time: 1 };
  const edit: Edit = {
    id: `edit-no-${++ids}`,
    kind: 'do',
    patches: done.patches,
    inverses: done.inverses,
    line,
  };
  return { edit, document: done.document };
}
const box = said(emptyDocument(), 'box', { as: 'a', size: [1, 2, 3] });
const mine = said(box.document, 'rename', { part: 'a', to: 'mine' });
const theirs = said(box.document, 'rename', { part: 'a', to: 'theirs' });
const other = said(box.document, 'pin', { as: 'here', at: [1, 2, 3] });
const left = (edits: Edit[], more: Partial<Left> = {}): Left => ({
  base: 1,
  edits,
  aside: [],
  places: ['there'],
  parts: [{ base: 1, edits, aside: [] }],
  ...more,
});
const server = (document: KadrelDocument, ...edits: Edit[]) => ({ document, edits, revision: edits.length });
const nameOf = ({ items }: KadrelDocument) => Object.values(items)[0]!.name;

test('nothing left is nothing to do', () => {
  const found = resume({ ...server(box.document, box.edit), left: undefined });
  expect(found).toEqual({ document: box.document, edits: [], unsaved: [], fits: true });
});

test('what was not saved goes on from what the server has', () => {
  const found = resume({ ...server(box.document, box.edit), left: left([mine.edit]) });
  expect([found.fits, nameOf(found.document), found.unsaved]).toEqual([true, 'mine', [mine.edit]]);
});

test('what the server has already is not saved again', () => {
  const found = resume({ ...server(mine.document, box.edit, mine.edit), left: left([mine.edit]) });
  expect([found.fits, found.unsaved, found.document]).toEqual([true, [], mine.document]);
});

test('of a long ledger the latest edits are enough', () => {
  const opened = { document: theirs.document, edits: [theirs.edit], revision: 2 };
  const clash = resume({ ...opened, left: left([mine.edit]) });
  expect([clash.fits, clash.unsaved]).toEqual([false, [mine.edit]]);
  const kept = resume({ ...opened, document: mine.document, edits: [mine.edit], left: left([mine.edit]) });
  expect([kept.fits, kept.unsaved]).toEqual([true, []]);
});

test('others’ edits elsewhere are no hindrance, and the same number is', () => {
  const beside = resume({ ...server(other.document, box.edit, other.edit), left: left([mine.edit]) });
  expect([beside.fits, nameOf(beside.document), Object.keys(beside.document.pins)]).toEqual([
    true,
    'mine',
    Object.keys(other.document.pins),
  ]);
  const clash = resume({ ...server(theirs.document, box.edit, theirs.edit), left: left([mine.edit]) });
  expect([clash.fits, clash.document, clash.unsaved]).toEqual([false, theirs.document, [mine.edit]]);
});

test('what was set aside is shown as far as it goes, and what does not go does not stop the rest', () => {
  const gone: Edit = {
    ...mine.edit,
    id: 'edit-no-gone',
    patches: [{ op: 'replace', path: ['items', 'nowhere', 'name'], value: 'x' }],
  };
  const aside = [gone, mine.edit].map((edit) => ({ edit, reason: 'why' }));
  const found = resume({ ...server(box.document, box.edit), left: left([other.edit], { aside }) });
  expect([found.fits, nameOf(found.document), found.unsaved]).toEqual([true, 'mine', [other.edit]]);
  expect(found.edits).toEqual([other.edit, mine.edit]);
});
