import { WANTED, targetKept, type Fit, type WantedKind } from '../../document/fit.ts';
import { isoFit } from '../../fit/iso286.ts';
import { declareVerb, isRefusal, needed, optional, refuse } from '../../statement/declare.ts';
import { checkName, limitsRead, nextCheckOrder } from '../shared/checks.ts';

/** Any nominal size that the standard knows: whether there is such a fit at all. */
const SOME_NOMINAL_MM = 25;

/** Two things and what is to hold between them; the fit report says whether it does. */
export const wantedFit = declareVerb({
  id: 'wanted-fit',
  name: 'Wanted fit',
  group: 'check',
  about:
    'What is to hold between two parts or faces: a clearance, contact, one axis, flush, or an ISO 286 fit.',
  words: [
    'tolerance',
    'clearance',
    'sliding',
    'press',
    'rule',
    'coaxial',
    'flush',
    'parallel',
    'iso',
    'h7',
    'g6',
  ],
  blanks: {
    from: needed('target', 'of', 'A part or a face; of an ISO 286 fit the bore.', {
      catches: 'features',
      next: 'to',
    }),
    to: needed('target', 'and', 'The other one; of an ISO 286 fit the shaft.', { catches: 'features' }),
    kind: needed('choice', 'wanted', 'What is to hold.', { default: 'clearance', choices: WANTED }),
    least: optional('text', 'at least', 'Of a clearance.'),
    greatest: optional('text', 'at most', 'Of a clearance.'),
    grades: optional('text', 'grades', 'Of an ISO 286 fit, as in H7/g6.'),
    called: optional('text', 'called', 'Its name.', { rare: true }),
  },
  sentence:
    'Wanted fit of {from} and {to}: {kind}[, at least {least}][, at most {greatest}][, {grades}][, called {called}]',
  apply(draft, { from, to, kind, least, greatest, grades, called }, context) {
    const wanted = kind as WantedKind;
    const hasLimits = least !== undefined || greatest !== undefined;
    if (wanted === 'clearance' && !hasLimits) return refuse('missing.least', {}, 'least');
    if (wanted !== 'clearance' && hasLimits) return refuse('limits.clearance', {}, 'least');
    if (wanted === 'iso' && !isoFit(SOME_NOMINAL_MM, grades ?? '')) return refuse('grades', {}, 'grades');
    const name = checkName(draft, called, 'F');
    if (isRefusal(name)) return name;
    const limits = limitsRead({ least, greatest }, 'length', context);
    if (isRefusal(limits)) return limits;
    const id = context.newId();
    const order = nextCheckOrder(draft, 'fits');
    const made: Fit = {
      id,
      name,
      order,
      kind: wanted,
      from: targetKept(from),
      to: targetKept(to),
      ...limits,
      ...(wanted === 'iso' ? { grades: grades! } : {}),
    };
    draft.fits[id] = made;
    return {};
  },
});
