import { missingLetters } from '../../profiles/text.ts';
import { declareVerb, needed, refuse } from '../../statement/declare.ts';
import { drawFigure, footOf, namedAs, onPlane } from '../shared/drawing.ts';

export const text = declareVerb({
  id: 'text',
  name: 'Text',
  group: 'draw',
  about: 'Letters as outlines, to raise or to engrave.',
  words: ['letters', 'label', 'name', 'engrave', 'font', 'sign'],
  blanks: {
    text: needed('text', 'text', 'What it says; a new line begins after \\n.'),
    height: needed('length', 'height', 'Of the capital letters.', { positive: true }),
    at: needed('point', 'at', 'Where its first line begins, ends or has its middle.', {
      default: ['0', '0', '0'],
    }),
    align: needed('choice', 'alignment', 'What stands at the point.', {
      default: 'left',
      choices: { left: 'from the left', centre: 'about the middle', right: 'to the right' },
    }),
    spacing: needed('length', 'spacing', 'Added between letters.', { default: '0', rare: true }),
    on: onPlane,
    as: namedAs,
  },
  sentence: 'Text {text}, {height} high, {align} at {at}[, spaced {spacing}] on {on}[ named {as}]',
  gesture: { steps: [[{ reads: 'place', into: 'at' }]] },
  apply(draft, { text: words, height, at, align, spacing, on, as }, context) {
    const lines = words.replaceAll('\\n', '\n');
    const missing = missingLetters(lines);
    if (missing.length > 0)
      return refuse('letters', { missing: missing.map((one) => `“${one}”`).join(', ') }, 'text');
    if (lines.trim() === '') return refuse('missing.text', {}, 'text');
    return drawFigure(draft, context, {
      name: as ?? (lines.split('\n')[0]!.trim().slice(0, 40) || 'Text'),
      figure: { kind: 'text', text: lines, height, spacing, align: align as 'left' | 'centre' | 'right' },
      plane: on,
      at: footOf(on, at),
      exact: at,
    });
  },
});
