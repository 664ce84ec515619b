import { emptyDocument } from '@kadrel/core';
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
