import { declareVerb, needed } from '../../statement/declare.ts';

/** Takes a sheet away with all that stands on it; the model stays as it is. */
export const deleteSheet = declareVerb({
  id: 'delete-sheet',
  name: 'Delete sheet',
  group: 'output',
  about: 'Takes a sheet away, with all that stands on it; the model stays as it is.',
  words: ['remove', 'sheet'],
  blanks: { sheet: needed('sheet', 'sheet', 'Which one.') },
  sentence: 'Delete sheet {sheet}',
  apply(draft, { sheet }) {
    delete draft.sheets[sheet.id];
    return {};
  },
});
