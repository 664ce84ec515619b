import { MEASURED, OF_ONE, targetKept, type Measure, type MeasuredKind } from '../../document/fit.ts';
import { declareVerb, isRefusal, needed, optional, refuse } from '../../statement/declare.ts';
import { checkName, limitsRead, nextCheckOrder } from '../shared/checks.ts';

/** Kept in the document, so that it follows the model. */
export const measure = declareVerb({
  id: 'measure',
  name: 'Measure',
  group: 'check',
  key: 'Shift+D',
  about:
    'Reads distances, angles and sizes of points, edges, faces and parts; Enter keeps one, with a limit if you like.',
  words: ['distance', 'how far', 'gap', 'angle', 'length', 'radius', 'area', 'volume', 'thickness', 'ruler'],
  blanks: {
    from: needed('target', 'of', 'A point, an edge, a face or a part: pick it, or type its name.', {
      catches: 'features',
    }),
    to: optional('target', 'to', 'The other one, of a distance or an angle.', { catches: 'features' }),
    what: needed('choice', 'what', 'What is kept.', { default: 'distance', choices: MEASURED }),
    least: optional('text', 'at least', 'Less is told as a fault.'),
    greatest: optional('text', 'at most', 'More is told as a fault.'),
    called: optional('text', 'called', 'Its name.', { rare: true }),
  },
  sentence: 'Measure {what} of {from}[ to {to}][, at least {least}][, at most {greatest}][, called {called}]',
  apply(draft, { from, to, what, least, greatest, called }, context) {
    const kind = what as MeasuredKind;
    if (!OF_ONE.has(kind) && !to) return refuse('missing.distance-angle', {}, 'to');
    if (OF_ONE.has(kind) && to) return refuse('of-one', { distance: MEASURED.distance }, 'to');
    if (kind === 'area' || kind === 'volume') {
      if (least !== undefined || greatest !== undefined) return refuse('limits.lengths', {}, 'least');
    }
    const name = checkName(draft, called, 'M');
    if (isRefusal(name)) return name;
    const limits = limitsRead({ least, greatest }, kind === 'angle' ? 'angle' : 'length', context);
    if (isRefusal(limits)) return limits;
    const id = context.newId();
    const kept: Measure = {
      id,
      name,
      order: nextCheckOrder(draft, 'measures'),
      what: kind,
      from: targetKept(from),
      ...(to ? { to: targetKept(to) } : {}),
      ...limits,
    };
    draft.measures[id] = kept;
    return {};
  },
});
