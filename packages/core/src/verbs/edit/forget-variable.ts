import { variableUses } from '../../document/variableUses.ts';
import { declareVerb, needed, refuse } from '../../statement/declare.ts';

/** Takes away a variable that nothing refers to. */
export const forgetVariable = declareVerb({
  id: 'forget-variable',
  name: 'Remove variable',
  group: 'edit',
  about: 'Takes away a variable that no number refers to.',
  words: ['delete variable', 'parameter', 'constant'],
  blanks: { name: needed('text', 'variable', 'Which one.') },
  sentence: 'Remove variable {name}',
  apply(draft, { name }) {
    if (!Object.hasOwn(draft.variables, name)) return refuse('unknown-variable', { name }, 'name');
    const uses = variableUses(draft).get(name) ?? 0;
    if (uses > 0) return refuse('in-use', { name, words: uses === 1 ? 'once' : `${uses} times` }, 'name');
    delete draft.variables[name];
    return {};
  },
});
