import { declareVerb, isRefusal, needed, refuse } from '../../statement/declare.ts';
import { variableFrom } from '../../document/variables.ts';
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
    const { name } = draft[found.root][found.id]!;
    const follower = found.root === 'measures' ? variableFrom(draft, name) : undefined;
    if (follower !== undefined) return refuse('measure-used', { name, follower }, 'of');
    delete draft[found.root][found.id];
    return {};
  },
});
