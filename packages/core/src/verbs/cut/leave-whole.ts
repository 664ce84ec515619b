import { declareVerb, needed, refuse } from '../../statement/declare.ts';

/** Bolts and people are seen whole where all else is cut. */
export const leaveWhole = declareVerb({
  id: 'leave-whole',
  name: 'Leave whole',
  group: 'cut',
  about: 'Parts that a section plane does not cut, as bolts and people are drawn; or cuts again.',
  words: ['section', 'bolt', 'exclude', 'except', 'uncut', 'skip'],
  blanks: {
    parts: needed('parts', 'parts', 'What stays whole, or is cut again.', { least: 1 }),
    section: needed('part', 'section', 'The section plane.'),
    how: needed('choice', 'how', 'Whether they stay whole.', {
      default: 'whole',
      choices: { whole: 'left whole', cut: 'cut again' },
    }),
  },
  sentence: 'Leave whole {parts} in {section}: {how}',
  apply(draft, { parts, section, how }) {
    const { name, recipe } = draft.items[section]!;
    const { base } = recipe;
    if (base.kind !== 'section') return refuse('section', { name }, 'section');
    const named = new Set(parts);
    const others = (base.whole ?? []).filter((id) => !named.has(id) && draft.items[id]);
    const whole = how === 'whole' ? [...others, ...parts] : others;
    if (whole.length > 0) base.whole = whole;
    else delete base.whole;
    return { select: [section] };
  },
});
