import type { Edit } from '@kadrel/core';
import { ApiError } from '../api/call.ts';
import { workshopApi } from '../api/workshop.ts';
import { editsSince, fetchEarlier, withStretch } from './earlier.ts';

const edit = (n: number, more: Partial<Edit> = {}): Edit => ({
  id: `edit-no-${n}`,
  kind: 'do',
  patches: [],
  inverses: [],
  line: { verb: 'box', values: {}, title: `Box ${n}`, author: 'Ada', time: n },
  ...more,
});
/** The ledger of the server: edits 1 to n. */
const ledger = (n: number) => Array.from({ length: n }, (_, i) => edit(i + 1));

const asked = { ...workshopApi };
afterEach(() => Object.assign(workshopApi, asked));

test('what came after an older revision is asked for, and nothing that is newer than the document is taken', async () => {
  const all = ledger(12);
  workshopApi.edits = (_, after) => Promise.resolve({ edits: all.slice(after) });
  const opened = { id: 'p', revision: 10, edits: all.slice(7, 10) };
  expect(await editsSince(opened, 5)).toEqual(all.slice(5, 10));
  workshopApi.edits = () => Promise.reject(new Error('nothing is missing'));
  expect(await editsSince(opened, 8)).toEqual(all.slice(7, 10));
  expect(await editsSince(opened)).toEqual(all.slice(7, 10));
});

test('an earlier line that is looked at stays the one that is looked at', () => {
  const found = [edit(1), edit(2), edit(3, { kind: 'undo', of: 'edit-no-2' })];
  const state = { edits: [edit(4), edit(5)], earlier: 3, lookingAt: 1 };
  // Of the three that came, one statement is in force.
  expect(withStretch(state, found)).toMatchObject({ earlier: 0, lookingAt: 2 });
  expect(withStretch({ ...state, lookingAt: null }, found).lookingAt).toBeNull();
});

describe('stretch by stretch', () => {
  const opened = (revision: number, latest: number) => {
    const all = ledger(revision);
    let state = {
      edits: all.slice(revision - latest) as readonly Edit[],
      earlier: revision - latest,
      lookingAt: null as number | null,
    };
    const get = () => state;
    const set = (change: typeof state) => {
      state = change;
    };
    return { all, get, fetching: { projectId: 'p', get, set } };
  };

  test('all of a long ledger comes, after a server that was away came back', async () => {
    const { all, get, fetching } = opened(2350, 100);
    const stretches: (readonly [number, number])[] = [];
    let isAway = true;
    workshopApi.stretchOfEdits = (_, [after, limit]) => {
      stretches.push([after, limit]);
      if (stretches.length === 2 && isAway) return Promise.reject(new ApiError(0, 'away', undefined));
      return Promise.resolve(all.slice(after, after + limit));
    };
    const pauses: number[] = [];
    await new Promise<void>((resolve) => {
      fetchEarlier({
        ...fetching,
        set(change) {
          fetching.set(change);
          if (change.earlier === 0) resolve();
        },
        later(work, ms) {
          pauses.push(ms);
          isAway = false;
          work();
        },
      });
    });
    expect(get()).toEqual({ edits: all, earlier: 0, lookingAt: null });
    expect(stretches).toEqual([
      [1250, 1000],
      [250, 1000],
      [250, 1000],
      [0, 250],
    ]);
    expect(pauses).toEqual([1000]);
  });

  test('nothing more is asked of a project that is gone, or after the page was left', async () => {
    const { get, fetching } = opened(10, 2);
    let count = 0;
    workshopApi.stretchOfEdits = () => {
      count += 1;
      return Promise.reject(new ApiError(404, 'gone', undefined));
    };
    const later = () => {
      throw new Error('it is not asked again');
    };
    fetchEarlier({ ...fetching, later });
    await Promise.resolve().then(() => undefined);
    expect([count, get().earlier]).toEqual([1, 8]);
    fetchEarlier({ ...fetching, later })();
    await Promise.resolve().then(() => undefined);
    expect(get().earlier).toBe(8);
  });
});
