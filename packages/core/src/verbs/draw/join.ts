import { definitionOf, valueOf } from '../../document/items.ts';
import type { ItemId, KadrelDocument } from '../../document/schema.ts';
import { pathsOnPlane } from '../../document/drawn.ts';
import { declareVerb, needed, optional, refuse } from '../../statement/declare.ts';
import { frameOfProfiles, requireProfiles } from '../shared/drawing.ts';
import { drawPaths, joinedAcross } from '../shared/outlines.ts';

/** Profiles put end to end across gaps up to a size. */
export const join = declareVerb({
  id: 'join',
  name: 'Join ends',
  group: 'draw',
  about: 'Puts profiles of one plane end to end into one; gaps up to a size are closed by straight lines.',
  words: ['close', 'gap', 'connect', 'merge', 'weld', 'polyline'],
  blanks: {
    profiles: needed('parts', 'profiles', 'What is joined; the first gives its name and its plane.', {
      least: 1,
    }),
    gap: needed('length', 'gap', 'Ends nearer than this are joined.', { default: '0.1 mm' }),
    keep: needed('choice', 'profiles', 'What becomes of the ones it is made from.', {
      default: 'hide',
      choices: { hide: 'hidden', show: 'kept in sight' },
    }),
    as: optional('name', 'name', 'What the joined profile is called.'),
  },
  sentence: 'Join ends of {profiles} across gaps up to {gap}[, the old ones {keep}][ named {as}]',
  apply(draft, { profiles, gap, keep, as }, context) {
    const fault = requireProfiles(draft, profiles, 'profiles');
    if (fault) return fault;
    if (valueOf(gap) < 0) return refuse('negative.gap', {}, 'gap');
    const found = pathsOnPlane(draft, profiles);
    if (!found) return refuse('planes', {}, 'profiles');
    const drawn = found.map(({ closed, curves }) => ({ closed, curves: curves.map(({ curve }) => curve) }));
    const paths = joinedAcross(drawn, valueOf(gap));
    const plane = frameOfProfiles(draft, profiles);
    const name = as ?? `${draft.items[profiles[0]!]!.name} joined`;
    if (keep === 'hide') hide(draft, profiles);
    return drawPaths(draft, context, { name, paths, plane });
  },
});

function hide(draft: KadrelDocument, ids: readonly ItemId[]): void {
  for (const id of ids) {
    const { base } = definitionOf(draft, draft.items[id]!).recipe;
    if (base.kind === 'profile') draft.items[id]!.visible = false;
  }
}
