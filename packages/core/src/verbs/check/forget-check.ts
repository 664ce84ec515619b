import { declareVerb, isRefusal, needed } from '../../statement/declare.ts';
import { checkNamed } from '../shared/checks.ts';

/** Takes a kept measure, a wanted fit or a mark away. */
export const forgetCheck = declareVerb({
  id: 'forget-check',
  name: 'Forget check',
  group: 'check',
  about: 'Takes away a kept measure, a wanted fit, or a mark that something is meant.',
  words: ['delete measure', 'remove', 'clear', 'fit'],
  blanks: { of: needed('text', 'measure, fit or mark', 'Its name.') },
  sentence: 'Forget check {of}',
  apply(draft, { of }) {
    const found = checkNamed(draft, of);
    if (isRefusal(found)) return found;
    delete draft[found.root][found.id];
    return {};
  },
});
