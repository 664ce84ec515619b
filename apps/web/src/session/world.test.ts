import { emptyDocument, type Question } from '@kadrel/core';
import { Worlds } from './world.ts';

const worlds = () =>
  new Worlds(
    () => undefined,
    () => Promise.reject(new Error('no kernel')),
  );

test('a statement that is tried again names what it makes as before, so that what the kernel has told of it is found', () => {
  const all = worlds();
  const document = emptyDocument();
  const [first, second] = [all.of(document), all.of(document)];
  const ids = [first.newId(), first.newId()];
  expect(new Set(ids).size).toBe(2);
  expect([second.newId(), second.newId()]).toEqual(ids);
});

test('what begins with another document is named otherwise', () => {
  const all = worlds();
  expect(all.of(emptyDocument()).newId()).not.toBe(all.of(emptyDocument()).newId());
});

test('a reply is about the document that was asked about, and about no other that has the same parts', async () => {
  const extents = [[0, 1] as const, [0, 2] as const];
  const all = new Worlds(
    () => undefined,
    () => Promise.resolve(extents.shift()!),
  );
  const [first, second] = [emptyDocument(), emptyDocument()];
  const question: Question = { ask: 'extent', part: 'pattern', direction: [0, 0, 1] };
  await all.find(first, question);
  expect([all.of(first).ask(question), all.of(second).ask(question)]).toEqual([[0, 1], undefined]);
  await all.find(second, question);
  expect([all.of(first).ask({ ...question }), all.of(second).ask(question)]).toEqual([
    [0, 1],
    [0, 2],
  ]);
});
