import type { Edit } from '@kadrel/core';
import { ApiError } from '../api/call.ts';
import { SaveQueue, type QueueOptions, type SaveReport } from './saveQueue.ts';
import { holdsOnly, putTogether, type Kept } from './shelf.ts';

const edit = (id: string, path = id): Edit => ({
  id: `edit-no-${id}`,
  kind: 'do',
  patches: [{ op: 'replace', path: ['items', path, 'name'], value: id }],
  inverses: [],
  line: { verb: 'rename', values: {}, title: id, author: 'Ada', time: 1 },
});

/** A queue with a server in a few lines, and a clock that the test turns. */
function bench(
  send: QueueOptions['send'],
  hasRoom = () => true,
  goesTogether = () => true,
  since?: QueueOptions['since'],
) {
  const reports: SaveReport[] = [];
  const missed: string[][] = [];
  const pending: (() => void)[] = [];
  const shelf: { kept?: Kept | undefined } = {};
  const queue = new SaveQueue(
    {
      keep: (kept) => {
        if (!hasRoom()) return Promise.reject(new DOMException('No room.', 'QuotaExceededError'));
        shelf.kept = kept;
        return Promise.resolve();
      },
      forget: () => {
        shelf.kept = undefined;
        return Promise.resolve();
      },
      send,
      onState: (report) => reports.push(report),
      onMissed: (theirs) => {
        missed.push(theirs.map((e) => e.id));
        return goesTogether();
      },
      later: (work) => pending.push(work),
      ...(since ? { since } : {}),
    },
    0,
  );
  const states = () => reports.map(({ state }) => state);
  return { queue, reports, states, missed, shelf, retry: () => pending.shift()?.() };
}
const idsOf = (edits: readonly Edit[] = []) => edits.map(({ id }) => id);
const settle = () => new Promise((resolve) => setTimeout(resolve, 0));

test('an edit stays kept until the server has it, and is sent before that', async () => {
  let release = () => {};
  const gate = new Promise<void>((resolve) => (release = resolve));
  const order: string[] = [];
  const { queue, shelf, states } = bench(async (base, edits) => {
    order.push(shelf.kept ? 'kept first' : 'sent first');
    await gate;
    return { revision: base + edits.length };
  });
  queue.add(edit('a'));
  await settle();
  expect([order, idsOf(shelf.kept?.edits)]).toEqual([['sent first'], ['edit-no-a']]);
  release();
  await settle();
  expect([shelf.kept, states().at(-1)]).toEqual([undefined, 'saved']);
});

test('a lost server is waited for, and the edits go in order', async () => {
  const sent: string[] = [];
  let up = false;
  const { queue, states, retry } = bench((base, edits) => {
    if (!up) return Promise.reject(new ApiError(0, 'The server does not answer.', undefined));
    sent.push(...idsOf(edits));
    return Promise.resolve({ revision: base + edits.length });
  });
  queue.add(edit('a'));
  await settle();
  expect(states().at(-1)).toBe('waiting');
  up = true;
  queue.add(edit('b'));
  retry();
  await settle();
  expect(sent).toEqual(['edit-no-a', 'edit-no-b']);
  expect(states().at(-1)).toBe('saved');
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
  expect([calls, missed, states().at(-1)]).toEqual([[0, 2], [['edit-no-x', 'edit-no-y']], 'saved']);
});

test('the same number changed on both sides is a conflict, and nothing is thrown away', async () => {
  const { queue, states, shelf } = bench(() =>
    Promise.reject(new ApiError(409, 'stale', { revision: 1, edits: [edit('theirs', 'same')] })),
  );
  queue.add(edit('ours', 'same'));
  await settle();
  expect([states().at(-1), queue.unsaved.length, idsOf(shelf.kept?.edits)]).toEqual([
    'conflict',
    1,
    ['edit-no-ours'],
  ]);
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
  expect([missed, states().at(-1)]).toEqual([[[]], 'saved']);
});

test('an edit that is added twice is sent once', async () => {
  const sent: string[] = [];
  let up = false;
  const { queue, retry } = bench((base, edits) => {
    if (!up) return Promise.reject(new ApiError(0, 'away', undefined));
    sent.push(...idsOf(edits));
    return Promise.resolve({ revision: base + edits.length });
  });
  queue.add(edit('a'));
  queue.add(edit('a'), edit('b'));
  await settle();
  up = true;
  retry();
  await settle();
  expect(sent).toEqual(['edit-no-a', 'edit-no-b']);
});

/** Takes everything but some; says which it does not take, or not. */
function choosy(poison: readonly string[], saysWhich: boolean) {
  const stored: string[] = [];
  const send: QueueOptions['send'] = (base, edits) => {
    const bad = edits.find(({ id }) => poison.includes(id));
    if (bad)
      return Promise.reject(new ApiError(422, 'It does not fit.', saysWhich ? { edit: bad.id } : undefined));
    stored.push(...idsOf(edits));
    return Promise.resolve({ revision: base + edits.length });
  };
  return { stored, send };
}

test.each([true, false])(
  'what the server will never take is set aside with what rests on it, and all else is saved (named: %s)',
  async (saysWhich) => {
    const { stored, send } = choosy(['edit-no-bad'], saysWhich);
    const { queue, reports, shelf } = bench(send);
    const undone: Edit = { ...edit('undone', 'far'), kind: 'undo', of: 'edit-no-bad' };
    queue.add(edit('a'), edit('bad', 'p1'), edit('b'), edit('on-bad', 'p1'), undone, edit('c'));
    await settle();
    expect(stored).toEqual(['edit-no-a', 'edit-no-b', 'edit-no-c']);
    const { state, aside } = reports.at(-1)!;
    expect([state, aside.map(({ edit: one }) => one.id)]).toEqual([
      'saved',
      ['edit-no-bad', 'edit-no-on-bad', 'edit-no-undone'],
    ]);
    expect(aside.map(({ reason }) => reason).slice(0, 2)).toEqual([
      'It does not fit.',
      'It rests on a statement that was not saved.',
    ]);
    expect(shelf.kept).toMatchObject({ edits: [], aside });
    // What comes later and rests on it waits with it.
    queue.add(edit('later', 'p1'), edit('d'));
    await settle();
    expect([stored.at(-1), reports.at(-1)!.aside.length]).toEqual(['edit-no-d', 4]);
    await queue.dropAside();
    expect([shelf.kept, reports.at(-1)!.aside]).toEqual([undefined, []]);
  },
);

test('a server that fails on the same edit again and again does not hold up the others', async () => {
  const stored: string[] = [];
  const { queue, reports, retry } = bench((base, edits) => {
    if (edits.some(({ id }) => id === 'edit-no-bad'))
      return Promise.reject(new ApiError(500, 'Failed.', undefined));
    stored.push(...idsOf(edits));
    return Promise.resolve({ revision: base + edits.length });
  });
  queue.add(edit('a'), edit('bad'), edit('b'));
  for (let i = 0; i < 40; i++) {
    await settle();
    retry();
  }
  expect(stored).toEqual(['edit-no-a', 'edit-no-b']);
  expect(reports.at(-1)).toMatchObject({ state: 'saved', aside: [{ reason: 'Failed.' }] });
});

test('a browser without room still sends, and says that it keeps no copy', async () => {
  const sent: string[] = [];
  let up = false;
  const { queue, reports, retry } = bench(
    (base, edits) => {
      if (!up) return Promise.reject(new ApiError(0, 'away', undefined));
      sent.push(...idsOf(edits));
      return Promise.resolve({ revision: base + edits.length });
    },
    () => false,
  );
  queue.add(edit('a'));
  await settle();
  expect(reports.at(-1)).toMatchObject({ state: 'waiting', isKept: false });
  up = true;
  queue.add(edit('b'));
  retry();
  await settle();
  expect(sent).toEqual(['edit-no-a', 'edit-no-b']);
  expect(reports.at(-1)).toMatchObject({ state: 'saved', isKept: true });
});

test('what several pages left is taken over together, doubles once', () => {
  const kept = (base: number, ...edits: Edit[]): Kept => ({ base, edits, aside: [] });
  expect(putTogether([])).toBeUndefined();
  const left = putTogether([
    ['one', kept(4, edit('a'), edit('b'))],
    ['two', { ...kept(3, edit('b'), edit('c')), aside: [{ edit: edit('x'), reason: 'why' }] }],
    ['three', kept(5, edit('x'))],
  ])!;
  expect([left.base, idsOf(left.edits), left.aside.length, left.places]).toEqual([
    3,
    ['edit-no-a', 'edit-no-b', 'edit-no-c'],
    1,
    ['one', 'two', 'three'],
  ]);
});

const behind = (revision: number, ...edits: Edit[]) =>
  new ApiError(409, 'Somebody saved.', { revision, edits });

test('what another page took over and saved is no edit of somebody else', async () => {
  let tries = 0;
  const { queue, missed } = bench((base, edits) =>
    tries++ === 0
      ? Promise.reject(behind(2, edit('a'), edit('z')))
      : Promise.resolve({ revision: base + edits.length }),
  );
  queue.add(edit('a'), edit('b'));
  await settle();
  expect([missed, queue.base]).toEqual([[['edit-no-z']], 3]);
});

test('a conflict keeps all that was made on the last revision in common, saved or not', async () => {
  const { queue, states, shelf } = bench(() => Promise.reject(behind(2, edit('a'), edit('z', 'b'))));
  queue.add(edit('a'), edit('b'));
  await settle();
  expect([states().at(-1), idsOf(queue.unsaved), queue.base]).toEqual([
    'conflict',
    ['edit-no-a', 'edit-no-b'],
    0,
  ]);
  expect(idsOf(shelf.kept?.edits)).toEqual(['edit-no-a', 'edit-no-b']);
});

test('what cannot be brought together is a conflict', async () => {
  const { queue, states } = bench(
    () => Promise.reject(behind(1, edit('z'))),
    () => true,
    () => false,
  );
  queue.add(edit('a'));
  await settle();
  expect([states().at(-1), idsOf(queue.unsaved), queue.base]).toEqual(['conflict', ['edit-no-a'], 0]);
});

test('a page that is closed leaves its copy as it is', async () => {
  let answer = (_: { revision: number }) => {};
  const { queue, shelf } = bench(() => new Promise((resolve) => (answer = resolve)));
  queue.add(edit('a'));
  await settle();
  queue.stop();
  answer({ revision: 1 });
  await settle();
  expect(idsOf(shelf.kept?.edits)).toEqual(['edit-no-a']);
});

test('another page’s place is only given up where it holds nothing else', () => {
  const kept = { base: 1, edits: [edit('aaaa'), edit('bbbb')], aside: [] };
  expect(holdsOnly(kept, [edit('aaaa'), edit('bbbb'), edit('cccc')])).toBe(true);
  expect(holdsOnly(kept, [edit('aaaa')])).toBe(false);
  expect(holdsOnly({ ...kept, aside: [{ edit: edit('dddd'), reason: '' }] }, kept.edits)).toBe(false);
  expect(holdsOnly('damaged', [])).toBe(false);
});

describe('looking for what others have saved', () => {
  const send: QueueOptions['send'] = (base, edits) => Promise.resolve({ revision: base + edits.length });

  test('brings it in, and goes on from there', async () => {
    const asked: number[] = [];
    const { queue, missed } = bench(send, undefined, undefined, (after) => {
      asked.push(after);
      return Promise.resolve(after === 0 ? [edit('theirs')] : []);
    });
    await queue.look();
    await queue.look();
    expect([asked, missed, queue.base]).toEqual([[0, 1], [['edit-no-theirs']], 1]);
  });

  test('leaves what is on its way alone', async () => {
    const { queue, missed } = bench(send, undefined, undefined, () => {
      queue.add(edit('mine'));
      return Promise.resolve([edit('theirs')]);
    });
    await queue.look();
    expect(missed).toEqual([]);
  });

  test('tells that a sign-in is wanted, until it was given', async () => {
    let isIn = false;
    const { queue, reports } = bench(send, undefined, undefined, () =>
      isIn ? Promise.resolve([]) : Promise.reject(new ApiError(401, 'Sign in first.', undefined)),
    );
    await queue.look();
    expect(reports.at(-1)).toMatchObject({ state: 'waiting', wantsSignIn: true });
    isIn = true;
    await queue.look();
    expect(reports.at(-1)).toMatchObject({ state: 'saved', wantsSignIn: false });
  });
});
