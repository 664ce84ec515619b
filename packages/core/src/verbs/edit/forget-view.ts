import { declareVerb, needed, refuse } from '../../statement/declare.ts';

/** Takes a kept view away. */
export const forgetView = declareVerb({
  id: 'forget-view',
  name: 'Forget view',
  group: 'edit',
  about: 'Takes a kept view away.',
  words: ['delete view', 'named view'],
  blanks: { view: needed('text', 'view', 'The name of the view.') },
  sentence: 'Forget view {view}',
  apply(draft, { view }) {
    if (!Object.hasOwn(draft.views, view)) return refuse('unknown-view.view', { view }, 'view');
    delete draft.views[view];
    return {};
  },
});
