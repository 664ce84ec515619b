import type { Edit } from '@kadrel/core';
import { ApiError } from '../api/client.ts';
import { SaveQueue, type QueueOptions, type SaveState } from './saveQueue.ts';

const edit = (id: string, path = id): Edit => ({
  id: `edit-no-${id}`,
  kind: 'do',
  patches: [{ op: 'replace', path: ['items', path, 'name'], value: id }],
  inverses: [],
  line: { verb: 'rename', values: {}, title: id, author: 'Ada', time: 1 },
});

/** A queue with a server in a few lines, and a clock that the test turns. */
function bench(send: QueueOptions['send'], stored = new Map<string, string>()) {
  const states: SaveState[] = [];
  const missed: string[][] = [];
  const pending: (() => void)[] = [];
  const storage = {
    get length() {
      return stored.size;
    },
    key: (i: number) => [...stored.keys()][i] ?? null,
    getItem: (key: string) => stored.get(key) ?? null,
    setItem: (key: string, value: string) => void stored.set(key, value),
    removeItem: (key: string) => void stored.delete(key),
  };
  const queue = new SaveQueue(
    {
      projectId: 'p',
      pageId: 'this-page',
      storage,
      send,
      onState: (state) => states.push(state),
      onMissed: (theirs) => missed.push(theirs.map((e) => e.id)),
      later: (work) => pending.push(work),
    },
    0,
  );
  return { queue, states, missed, stored, storage, retry: () => pending.shift()?.() };
}
const settle = () => new Promise((resolve) => setTimeout(resolve, 0));

test('an edit stays in the storage until the server has it', async () => {
  let release = () => {};
  const gate = new Promise<void>((resolve) => (release = resolve));
  const { queue, storage, stored, states } = bench(async (base, edits) => {
    await gate;
    return { revision: base + edits.length };
  });
  queue.add(edit('a'));
  await settle();
  expect(SaveQueue.takeOver(storage, 'p')?.edits.map((e) => e.id)).toEqual(['edit-no-a']);
  release();
  await settle();
  expect([stored.size, states.at(-1)]).toEqual([0, 'saved']);
});

test('a lost server is waited for, and the edits go in order', async () => {
  const sent: string[] = [];
  let up = false;
  const { queue, states, retry } = bench((base, edits) => {
    if (!up) return Promise.reject(new ApiError(0, 'The server does not answer.', undefined));
    sent.push(...edits.map((e) => e.id));
    return Promise.resolve({ revision: base + edits.length });
  });
  queue.add(edit('a'));
  await settle();
  expect(states.at(-1)).toBe('waiting');
  up = true;
  queue.add(edit('b'));
  retry();
  await settle();
  expect(sent).toEqual(['edit-no-a', 'edit-no-b']);
  expect(states.at(-1)).toBe('saved');
});

test('others’ edits elsewhere go before ours, which are sent again', async () => {
  const calls: number[] = [];
  const { queue, missed, states } = bench((base, edits) => {
    calls.push(base);
    if (base === 0)
      return Promise.reject(new ApiError(409, 'stale', { revision: 2, edits: [edit('x'), edit('y')] }));
    return Promise.resolve({ revision: base + edits.length });
  });
  queue.add(edit('a'));
  await settle();
  expect([calls, missed, states.at(-1)]).toEqual([[0, 2], [['edit-no-x', 'edit-no-y']], 'saved']);
});

test('the same number changed on both sides is a conflict, and nothing is thrown away', async () => {
  const { queue, states, stored } = bench(() =>
    Promise.reject(new ApiError(409, 'stale', { revision: 1, edits: [edit('theirs', 'same')] })),
  );
  queue.add(edit('ours', 'same'));
  await settle();
  expect([states.at(-1), queue.unsaved.length, stored.size]).toEqual(['conflict', 1, 1]);
});

test('an answer that was lost on the way does not store an edit twice', async () => {
  const ours = edit('a');
  const { queue, missed, states } = bench((base, edits) =>
    base === 0 && edits.length === 2
      ? Promise.reject(new ApiError(409, 'stale', { revision: 1, edits: [ours] }))
      : Promise.resolve({ revision: base + edits.length }),
  );
  queue.add(ours, edit('b'));
  await settle();
  expect([missed, states.at(-1)]).toEqual([[[]], 'saved']);
});

test('damaged storage is no reason to fail', () => {
  const { storage, stored } = bench(() => Promise.resolve({ revision: 1 }));
  stored.set('kadrel.unsaved.p.old-page', '{ not json');
  expect(SaveQueue.takeOver(storage, 'p')).toBeUndefined();
});

test('what several pages left is taken over together, and theirs is forgotten once it is kept here', async () => {
  const stored = new Map([
    ['kadrel.unsaved.p.one', JSON.stringify({ base: 4, edits: [edit('a')] })],
    ['kadrel.unsaved.p.two', JSON.stringify({ base: 3, edits: [edit('b')] })],
    ['kadrel.unsaved.other.one', JSON.stringify({ base: 0, edits: [edit('c')] })],
  ]);
  const { queue, storage } = bench(() => Promise.reject(new ApiError(0, 'away', undefined)), stored);
  const left = SaveQueue.takeOver(storage, 'p')!;
  expect([left.base, left.edits.map((e) => e.id)]).toEqual([3, ['edit-no-a', 'edit-no-b']]);
  queue.add(...left.edits);
  SaveQueue.forgetOthers(storage, 'p', 'this-page');
  await settle();
  expect([...stored.keys()]).toEqual(['kadrel.unsaved.other.one', 'kadrel.unsaved.p.this-page']);
});
