import { declareVerb, needed, refuse } from '../../statement/declare.ts';

/** Takes a dock away; its joints go with it. */
export const removeDock = declareVerb({
  id: 'remove-dock',
  name: 'Remove dock',
  group: 'join',
  about: 'Takes a dock away, and its joints with it; parts stay where they are.',
  words: ['delete dock', 'forget dock'],
  blanks: {
    part: needed('part', 'part', 'Whose dock it is.'),
    dock: needed('text', 'dock', 'Its name.'),
  },
  sentence: 'Remove dock {dock} of {part}',
  apply(draft, { part: id, dock }) {
    const part = draft.items[id]!;
    const found = Object.values(part.docks ?? {}).find((one) => one.name === dock || one.id === dock);
    if (!found) return refuse('unknown-dock.dock', { name: part.name, dock }, 'dock');
    delete part.docks![found.id];
    if (Object.keys(part.docks!).length === 0) delete part.docks;
    return { select: [id] };
  },
});
