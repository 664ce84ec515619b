import { declareVerb, needed } from '../../statement/declare.ts';

/** Keeps how a view looks, under a name, with the project. */
export const keepView = declareVerb({
  id: 'keep-view',
  name: 'Keep view',
  group: 'edit',
  about: 'Keeps how the view looks now, under a name; its caption brings it back.',
  words: ['save view', 'named view', 'camera', 'bookmark'],
  blanks: {
    as: needed('name', 'name', 'What it is called; a view of this name is replaced.', { replaces: true }),
    view: needed('view', 'view', 'Target, bearing, altitude, height and projection.'),
  },
  sentence: 'Keep view {view} as {as}',
  apply(draft, { as, view }) {
    draft.views[as.slice(0, 80)] = { ...view, target: [...view.target] };
    return {};
  },
});
