import type { KadrelDocument } from '../../document/schema.ts';
import { variableFrom } from '../../document/variables.ts';
import { withMeasureCalled } from '../../quantity/variables.ts';
import { declareVerb, isRefusal, needed, optional, refuse, type Refusal } from '../../statement/declare.ts';
import { checkName, checkNamed, limitKind, limitsFault, limitsRead } from '../shared/checks.ts';

/** Variables that are set from a measure go on being so. */
function renameInVariables(draft: KadrelDocument, from: string, to: string): Refusal | undefined {
  const follower = variableFrom(draft, from);
  if (follower === undefined) return undefined;
  if (/["“”]/.test(to)) return refuse('measure-name', { follower }, 'called');
  for (const [variable, text] of Object.entries(draft.variables))
    draft.variables[variable] = withMeasureCalled(text, from, to);
  return undefined;
}

/** Another name, or other limits. */
export const changeCheck = declareVerb({
  id: 'change-check',
  name: 'Change check',
  group: 'check',
  about: 'Another name or other limits of a kept measure or a wanted fit.',
  words: ['limit', 'tolerance', 'rename measure', 'edit measure'],
  blanks: {
    of: needed('text', 'measure or fit', 'Its name.'),
    least: optional('text', 'at least', 'Less is told as a fault; none takes the limit away.'),
    greatest: optional('text', 'at most', 'More is told as a fault; none takes the limit away.'),
    called: optional('text', 'called', 'Another name.'),
  },
  sentence: 'Change check {of}[, at least {least}][, at most {greatest}][, called {called}]',
  apply(draft, { of, least, greatest, called }, context) {
    const found = checkNamed(draft, of);
    if (isRefusal(found)) return found;
    const { root, id } = found;
    const check = draft[root][id]!;
    if (called !== undefined && called !== check.name) {
      const name = checkName(draft, called, 'M');
      if (isRefusal(name)) return name;
      const unfit = root === 'measures' ? renameInVariables(draft, check.name, name) : undefined;
      if (unfit) return unfit;
      check.name = name;
    }
    if (least === undefined && greatest === undefined) return {};
    if (!('from' in check) || ('kind' in check && check.kind !== 'clearance'))
      return refuse('limits', { name: check.name }, 'least');
    const said = (text: string | undefined) => (text === 'none' ? undefined : text);
    const kind = 'what' in check ? limitKind(check.what) : 'length';
    const limits = limitsRead({ least: said(least), greatest: said(greatest) }, kind, context);
    if (isRefusal(limits)) return limits;
    if (least !== undefined) delete check.least;
    if (greatest !== undefined) delete check.greatest;
    Object.assign(check, limits);
    return limitsFault(check) ?? {};
  },
});
