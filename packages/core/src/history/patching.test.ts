import { emptyDocument } from '../document/items.ts';
import { documentSchema, joinFaults, type KadrelDocument, type Part } from '../document/schema.ts';
import { said } from '@kadrel/testing';
import { applyEdit, type Edit } from './edit.ts';
import { cleanJson, jsonFault, MAX_DEPTH } from './json.ts';
import { afterEdits, isEditFault } from './patching.ts';

const line = { verb: 'box', values: {}, title: '', author: 'Ada', time: 1 };
const editOf = (patches: Edit['patches'], id = 'edit-0001'): Edit => ({
  id,
  kind: 'do',
  patches,
  inverses: [],
  line,
});
const box = said(emptyDocument(), 'box', { as: 'a', size: [1, 2, 3] }).document;
const id = Object.keys(box.items)[0]!;
const steps = ['items', id, 'recipe', 'steps'];

test('an edit that a statement made leads to the document that the statement made', () => {
  let document = box;
  for (const [verb, typed] of [
    ['cylinder', { as: 'b', diameter: 4, height: 9 }],
    ['union', { as: 'c', parts: ['a', 'b'] }],
    ['grid', { as: 'd', parts: ['c'], columns: 3, columnPitch: 9 }],
    ['variable', { name: 'n', value: '3 mm' }],
  ] as const) {
    const done = said(document, verb, typed);
    const wire = JSON.parse(JSON.stringify(editOf(done.patches))) as Edit;
    const after = afterEdits(document, [wire]);
    expect(after).toEqual(applyEdit(document, wire));
    const back = afterEdits(after as KadrelDocument, [editOf(done.inverses)]);
    expect(back).toEqual(document);
    document = done.document;
  }
});

test.each([
  ['a length beyond the list', [{ op: 'replace', path: [...steps, 'length'], value: 4294967295 }]],
  ['a length of fifty million', [{ op: 'replace', path: [...steps, 'length'], value: 5e7 }]],
  ['an index beyond the list', [{ op: 'add', path: [...steps, 4294967294], value: { kind: 'close' } }]],
  ['an index as a text', [{ op: 'replace', path: [...steps, '1e9'], value: 1 }]],
  ['what every object has', [{ op: 'add', path: ['items', '__proto__', 'name'], value: 'x' }]],
  ['a constructor', [{ op: 'add', path: ['items', id, 'constructor'], value: 'x' }]],
  ['no part of a document', [{ op: 'replace', path: ['kadrel'], value: 99 }]],
  ['a part that is not there', [{ op: 'replace', path: ['items', 'nope', 'name'], value: 'x' }]],
  ['within a text', [{ op: 'replace', path: ['items', id, 'name', 0], value: 'x' }]],
  ['a damaged part', [{ op: 'replace', path: ['items', id, 'name'], value: 7 }]],
  ['a part below nothing', [{ op: 'replace', path: ['items', id, 'parent'], value: 'nope' }]],
  ['all parts gone wrong', [{ op: 'replace', path: ['items'], value: [] }]],
  ['half of a pair', [{ op: 'replace', path: ['items', id, 'name'], value: 'a\ud800' }]],
  ['a NUL', [{ op: 'add', path: ['variables', 'a\0'], value: '1' }]],
  ['no value', [{ op: 'replace', path: ['items', id, 'name'] }]],
] as [string, Edit['patches']][])('%s is refused at once', (_, patches) => {
  const after = afterEdits(box, [editOf([]), editOf(patches, 'edit-0002')]);
  expect(isEditFault(after) && after.edit).toBe('edit-0002');
  expect(documentSchema.safeParse(box).success).toBe(true);
});

test('a list may be cut, as statements do', () => {
  const open = said(box, 'mirror', { parts: ['a'] }).document;
  const list = open.items[id]!.recipe.steps;
  const cut = afterEdits(open, [editOf([{ op: 'replace', path: [...steps, 'length'], value: 0 }])]);
  expect(isEditFault(cut) ? cut : cut.items[id]!.recipe.steps).toEqual([]);
  expect(open.items[id]!.recipe.steps).toBe(list);
});

test('what is too deep, or too much, is told without being followed to its end', () => {
  let deep: unknown = 1;
  for (let i = 0; i <= MAX_DEPTH; i++) deep = [deep];
  expect(jsonFault(deep)).toMatch(/nested/);
  expect(jsonFault(Array.from({ length: 500_000 }, () => 0))).toMatch(/more than/);
  expect(cleanJson({ as: 'a\0b\udc00', at: [1, '😀'] })).toEqual({ as: 'ab', at: [1, '😀'] });
});

test('statements clean their texts, so that everything they make can be stored', () => {
  const done = said(emptyDocument(), 'box', { as: 'lid\0\ud83d', size: [1, 1, 1] });
  expect(Object.values(done.document.items).map(({ name }) => name)).toEqual(['lid']);
});

/** So many links to a group of as many parts. */
function linksToAGroup(count: number): KadrelDocument {
  const part = (item: Partial<Part> & { id: string }): Part => ({
    ...box.items[id]!,
    ...item,
    name: item.id,
  });
  const members = Array.from({ length: count }, (_, i) => part({ id: `m${i}`, parent: 'g' }));
  const group = part({
    id: 'g',
    recipe: { base: { kind: 'group', members: members.map((one) => one.id) }, steps: [] },
  });
  const links = Array.from({ length: count }, (_, i) =>
    part({ id: `l${i}`, recipe: { base: { kind: 'link', to: 'g' }, steps: [] } }),
  );
  return { ...box, items: Object.fromEntries([...members, group, ...links].map((one) => [one.id, one])) };
}

test('links to a large group do not each look through the group', () => {
  const document = linksToAGroup(2000);
  const { base } = document.items.g!.recipe;
  let reads = 0;
  const members = new Proxy((base as { members: string[] }).members, {
    get(list, key, receiver): unknown {
      reads += 1;
      return Reflect.get(list, key, receiver);
    },
  });
  const watched = { ...document.items.g!, recipe: { base: { ...base, members }, steps: [] } } as Part;
  expect(joinFaults({ ...document, items: { ...document.items, g: watched } })).toEqual([]);
  expect(reads).toBeLessThan(20 * 2000);
});

test('a link within what it is linked to is found, through other links too', () => {
  const { items, ...rest } = linksToAGroup(3);
  const inside: Part = { ...items.l0!, id: 'm0', name: 'm0', parent: 'g' };
  const messages = joinFaults({ ...rest, items: { ...items, m0: inside } }).map(({ message }) => message);
  expect(messages).toEqual(['m0 is made from itself.']);
});
