/** What a row is measured by. Facts of the trade, no source: first to last, over the outer faces, half a pitch at each end. */
import { emptyDocument, valueOf } from '../../document/items.ts';
import type { KadrelDocument } from '../../document/schema.ts';
import { isRefusal } from '../../refusals/refusal.ts';
import { perform } from '../../statement/perform.ts';
import { plainWorld } from '../../statement/world.ts';
import { verbNamed } from '../index.ts';

let ids = 0;
const tried = (document: KadrelDocument, verb: string, typed: object) =>
  perform(
    verbNamed(verb)!,
    { ...typed },
    document,
    plainWorld(document, () => `p${++ids}`),
  );
function after(document: KadrelDocument, verb: string, typed: object): KadrelDocument {
  const done = tried(document, verb, typed);
  if (isRefusal(done)) throw new Error(done.message);
  return done.document;
}
const post = after({ ...emptyDocument(), variables: { room: '500' } }, 'box', {
  size: ['20', '20', '80'],
  at: ['0', '0', '0'],
  as: 'Post',
});
/** The first and the last post, by their left sides. */
function span(measured: string | undefined, across = '500', count = '5'): number {
  const row = after(post, 'along', { parts: ['Post'], along: 'x', count, span: across, measured });
  const { base } = Object.values(row.items).find(({ recipe }) => recipe.base.kind === 'pattern')!.recipe;
  if (base.kind !== 'pattern' || base.layout.kind !== 'along') throw new Error('This is no row.');
  const { spacing } = base.layout;
  return 'span' in spacing ? valueOf(spacing.span) : NaN;
}

test('across goes from the first to the last, unless it is said otherwise', () => {
  expect(span(undefined)).toBe(500);
  expect(span('ends')).toBe(500);
});

test('over their outer faces the parts themselves count', () => {
  expect(span('outer')).toBe(480);
  const refused = tried(post, 'along', {
    parts: ['Post'],
    along: 'x',
    count: '5',
    span: '15',
    measured: 'outer',
  });
  expect(isRefusal(refused) && refused.blank).toBe('span');
});

test('with half a pitch at each end five take a fifth each', () => {
  expect(span('halves')).toBe(400);
});

test('however it is measured, it follows its variable', () => {
  expect([span('outer', 'room'), span('halves', 'room')]).toEqual([480, 400]);
  const row = after(post, 'along', {
    parts: ['Post'],
    along: 'x',
    count: '5',
    span: 'room',
    measured: 'outer',
  });
  const wider = after(row, 'variable', { name: 'room', value: '600' });
  const { base } = Object.values(wider.items).find(({ recipe }) => recipe.base.kind === 'pattern')!.recipe;
  expect(base).toMatchObject({ layout: { spacing: { span: { value: 580 } } } });
});
