import type { Meant } from '../../document/fit.ts';
import { declareVerb, isRefusal, needed, refuse } from '../../statement/declare.ts';
import { checkName, nextCheckOrder } from '../shared/checks.ts';

/** What the fit report would call a fault, and is there on purpose. */
export const meant = declareVerb({
  id: 'meant',
  name: 'Mark as meant',
  group: 'check',
  about:
    'One part, or two, that stand as they do on purpose: glued, pressed in, hung up. The fit report lists them apart.',
  words: ['ignore', 'allow', 'glued', 'press fit', 'intended', 'on purpose', 'accept'],
  blanks: {
    parts: needed('parts', 'parts', 'One part, or two that go into one another.', { least: 1 }),
    why: needed('text', 'since', 'Why: glued, a press fit, hangs from a wire.'),
  },
  sentence: 'Mark as meant {parts}: {why}',
  apply(draft, { parts, why }, context) {
    if (parts.length > 2) return refuse('too-many.part', {}, 'parts');
    const name = checkName(draft, undefined, 'Meant ');
    if (isRefusal(name)) return name;
    const id = context.newId();
    const made: Meant = {
      id,
      name,
      order: nextCheckOrder(draft, 'meant'),
      parts: [...parts],
      why: why.slice(0, 300),
    };
    draft.meant[id] = made;
    return {};
  },
});
