import { emptyDocument } from '../document/items.ts';
import { NewerVersionError } from '../document/migrations.ts';
import { DOCUMENT_VERSION } from '../document/schema.ts';
import type { Edit } from './edit.ts';
import { replay } from './replay.ts';

const line = { verb: 'scene', values: {}, title: '', author: 'Ada', time: 1 };
const set = (path: string[], value: unknown, version?: number): Edit => ({
  id: 'edit-0001',
  kind: 'do',
  ...(version === undefined ? {} : { version }),
  patches: [{ op: 'replace', path, value }],
  inverses: [],
  line,
});
const { pins: _, views: __, ...rest } = emptyDocument();
const { nudge: ___, ...scene } = rest.scene;
/** Before pins, views and the nudge step. */
const first = { ...rest, kadrel: 1, scene };

test('edits meet the document of the version that they were made on', () => {
  // What version 1 calls the scene's nudge is nothing; the step from 1 to 2 sets it, and an edit of version 2 goes on from there.
  const document = replay(first, [
    set(['scene', 'nudge'], 99, 1),
    set(['scene', 'grid'], 7),
    set(['scene', 'decimals'], 2, 2),
    set(['scene', 'nudge'], 3, 5),
  ]);
  expect(document).toMatchObject({ kadrel: DOCUMENT_VERSION, scene: { grid: 7, decimals: 2, nudge: 3 } });
  expect(replay(first, [set(['scene', 'nudge'], 99, 1)]).scene.nudge).toBe(1);
});

test('what a newer Kadrel stored is told as such', () => {
  expect(() => replay({ ...emptyDocument(), kadrel: DOCUMENT_VERSION + 1 }, [])).toThrow(NewerVersionError);
  expect(() => replay(emptyDocument(), [set(['scene', 'grid'], 7, DOCUMENT_VERSION + 1)])).toThrow(
    NewerVersionError,
  );
});
