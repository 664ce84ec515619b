/** Any sequence of statements about the tree leaves a sound document, and can be taken back. */
import fc from 'fast-check';
import { trials } from '@kadrel/testing';
import {
  applyEdit,
  emptyDocument,
  documentSchema,
  placedOf,
  standingParts,
  type KadrelDocument,
} from '../index.ts';
import { isRefusal } from '../statement/declare.ts';
import { verbNamed } from './index.ts';
import { perform } from '../statement/perform.ts';
import { plainWorld } from '../statement/world.ts';

type Pick = (i: number) => string;
type Make = (part: Pick, n: number) => readonly [verb: string, typed: Record<string, unknown>];

/** Statements with parts by number, of those that there are. */
const STATEMENTS: readonly Make[] = [
  (_, n) => ['box', { size: [10, 8 + n, 6], at: [n * 20, 0, 0] }],
  (part, n) => ['group', { parts: [part(n), part(n + 3)] }],
  (part, n) => ['ungroup', { parts: [part(n)] }],
  (part, n) => ['along', { parts: [part(n)], count: 2 + (n % 3), pitch: 15 + n }],
  (part, n) => ['around', { parts: [part(n)], count: 3, at: [n, -40, 0], rise: n % 2 }],
  (part, n) => [
    'grid',
    { parts: [part(n), part(n + 1)], columns: 2, columnPitch: 50, levels: 2, levelPitch: 9 },
  ],
  (part, n) => ['reflect', { parts: [part(n)], at: [n, n, 0], across: 'xyz'[n % 3] }],
  (part, n) => [
    'path',
    {
      parts: [part(n)],
      path: [
        [0, 0, 0],
        [50, 0, 0],
        [50, 30, 10],
      ],
      count: 3,
    },
  ],
  (part, n) => ['pattern', { parts: [part(n)], count: 'now + 1' }],
  (part, n) => ['omit', { part: part(n), members: '2' }],
  (part, n) => ['free', { part: part(n), members: '1' }],
  (part, n) => ['dissolve', { parts: [part(n)] }],
  (part, n) => [
    'duplicate',
    { parts: [part(n)], kind: n % 2 === 0 ? 'linked' : 'independent', by: [0, 70, 0] },
  ],
  (part, n) => ['unlink', { parts: [part(n)] }],
  (part, n) => ['subtract', { from: part(n), parts: [part(n + 2)] }],
  (part, n) => ['union', { parts: [part(n), part(n + 1)] }],
  (part, n) => ['delete', { parts: [part(n)] }],
  (part, n) => ['arrange', { parts: [part(n)], before: part(n + 1) }],
  (part, n) => ['arrange', { parts: [part(n)], into: part(n + 2) }],
  (part, n) => ['move', { parts: [part(n)], by: [n, 1, 2], leaving: n % 3 === 0 ? 'copy' : 'nothing' }],
  (part, n) => ['turn', { parts: [part(n)], angle: 30 * n, centre: 'point', at: [1, 2, 3] }],
  (part, n) => [
    'resize',
    { parts: [part(n)], by: [n % 2 === 0 ? '2' : '1', '1', '1'], about: 'point', at: [0, 0, 0] },
  ],
  (part, n) => ['mirror', { parts: [part(n)], across: 'y', centre: 'point', at: [0, n, 0] }],
  (part, n) => ['number', { parts: [part(n), part(n + 1)], to: `N${n} #` }],
];

/** More solids than this say nothing new. */
const MAX_SOLIDS = 4000;

function run(document: KadrelDocument, [which, n]: readonly [number, number], ids: { next: number }) {
  const parts = Object.keys(document.items);
  const [verb, typed] = STATEMENTS[which]!((i) => parts[i % parts.length] ?? 'none', n);
  return perform(
    verbNamed(verb)!,
    typed,
    document,
    plainWorld(document, () => `p${ids.next++}`),
  );
}

test('the document stays sound, and every statement can be taken back', () => {
  const step = fc.tuple(fc.nat(STATEMENTS.length - 1), fc.nat(7));
  fc.assert(
    fc.property(fc.array(step, { minLength: 4, maxLength: 24 }), (steps) => {
      const ids = { next: 1 };
      let document = emptyDocument();
      let carriedOut = 0;
      for (const one of [[0, 0], [0, 1], [0, 2], ...steps] as (readonly [number, number])[]) {
        const done = run(document, one, ids);
        if (isRefusal(done)) continue;
        documentSchema.parse(done.document);
        expect(applyEdit(done.document, { patches: done.inverses })).toEqual(document);
        const solids = standingParts(done.document).flatMap(({ id }) => placedOf(done.document, id));
        for (const { pose } of solids)
          expect([...pose.turn, ...pose.shift].every(Number.isFinite)).toBe(true);
        // Each solid has a place of its own in the list.
        expect(new Set(solids.map(({ item, tag }) => `${item} ${tag}`)).size).toBe(solids.length);
        if (solids.length > MAX_SOLIDS) return;
        document = done.document;
        carriedOut += 1;
      }
      expect(carriedOut).toBeGreaterThan(2);
    }),
    { numRuns: trials(80), seed: 20261125 },
  );
});
