import { declareKind } from '../declare.ts';
import { choice, length, text as words } from '../fields.ts';

export const text = declareKind(
  'text',
  {
    text: words('Text', 'What a text says.', { blank: 'words', rare: true }),
    height: length('Height', 'Of the capital letters.', { above: 0 }),
    spacing: length('Spacing', 'Added between letters.', { rare: true }),
    align: choice(
      'Alignment',
      { left: 'left', centre: 'middle', right: 'right' },
      { about: 'Of a text.', rare: true },
    ),
  },
  { words: 'a text', inAWord: 'text' },
);
