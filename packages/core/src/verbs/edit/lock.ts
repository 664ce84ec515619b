import { declareVerb, needed } from '../../statement/declare.ts';

/** Keeps parts from being moved, changed and deleted, or frees them. */
export const lock = declareVerb({
  id: 'lock',
  name: 'Lock',
  group: 'edit',
  key: 'L',
  about: 'Keeps parts where and as they are; or frees them again.',
  words: ['unlock', 'freeze', 'protect', 'fix'],
  blanks: {
    parts: needed('parts', 'parts', 'What is locked or freed.', { least: 1 }),
    state: needed('choice', 'state', 'Locked, or free.', {
      default: 'locked',
      choices: { locked: 'so that they stay', free: 'free again' },
    }),
  },
  sentence: 'Lock {parts}, {state}',
  apply(draft, { parts, state }) {
    for (const id of parts) draft.items[id]!.locked = state === 'locked';
    return { select: parts };
  },
});
