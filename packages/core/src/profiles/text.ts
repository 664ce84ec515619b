/** Letters as outlines, from the font that ships with Kadrel. */
import opentype from 'opentype.js';
import { valueOf } from '../recipes/numbers.ts';
import { distance2, type Vec2 } from '../space/vector2.ts';
import { SAME_POINT_MM, line, type Curve } from '../curves/curve.ts';
import type { FigureOf } from '../recipes/figures/index.ts';
import { FONT_WOFF } from './font.ts';

interface Letters {
  readonly font: opentype.Font;
  /** Height of the capitals, in units of the font. */
  readonly capHeight: number;
}
let letters: Letters | undefined;

/** Read once, when a text is first drawn. */
function loadLetters(): Letters {
  if (letters) return letters;
  const bytes = Uint8Array.from(atob(FONT_WOFF), (character) => character.charCodeAt(0));
  const font = opentype.parse(bytes.buffer);
  const { sCapHeight } = font.tables.os2 as unknown as { sCapHeight: number };
  letters = { font, capHeight: sCapHeight };
  return letters;
}

/** Lines of text lie this many capital heights apart. Common practice, no source. */
const LINE_PITCH = 1.6;

/** Height of capitals as a part of the size of the font. */
export function capitalsShare(): number {
  const { font, capHeight } = loadLetters();
  return capHeight / font.unitsPerEm;
}

/** How wide a row of text is whose capitals have a height, mm. */
export function widthOfText(text: string, height: number): number {
  const { font, capHeight } = loadLetters();
  const glyphs = [...text].map((character) => font.charToGlyph(character));
  const wide = glyphs.reduce((sum, glyph) => sum + (glyph.advanceWidth ?? 0), 0);
  return (wide * height) / capHeight;
}

/** The font file, as WOFF in base64. */
export { FONT_WOFF } from './font.ts';

/** Characters that the font has no picture of. */
export function missingLetters(text: string): string[] {
  const { font } = loadLetters();
  return [...new Set(text)].filter(
    (character) => character !== '\n' && character !== ' ' && font.charToGlyphIndex(character) === 0,
  );
}

/** Closed paths, mm; the first line stands on the X axis, and begins, ends or has its middle at the origin. */
export function textPaths({
  text,
  height,
  spacing,
  align,
}: FigureOf<'text'>): { closed: true; curves: Curve[] }[] {
  const { font, capHeight } = loadLetters();
  const scale = valueOf(height) / capHeight;
  const extra = valueOf(spacing);
  return text.split('\n').flatMap((row, index) => {
    const glyphs = [...row].map((character) => font.charToGlyph(character));
    const starts: number[] = [];
    let x = 0;
    glyphs.forEach((glyph, i) => {
      if (i > 0) x += font.getKerningValue(glyphs[i - 1]!, glyph) * scale + extra;
      starts.push(x);
      x += (glyph.advanceWidth ?? 0) * scale;
    });
    const shift = align === 'left' ? 0 : align === 'centre' ? -x / 2 : -x;
    const base = -index * LINE_PITCH * valueOf(height);
    return glyphs.flatMap((glyph, i) =>
      loops(glyph.getPath(0, 0, font.unitsPerEm).commands, ([px, py]) => [
        px * scale + starts[i]! + shift,
        base - py * scale,
      ]),
    );
  });
}

/** @param place from the font's units, with Y downward */
function loops(commands: readonly opentype.PathCommand[], place: (point: Vec2) => Vec2) {
  const found: { closed: true; curves: Curve[] }[] = [];
  let curves: Curve[] = [];
  let start: Vec2 = [0, 0];
  let at: Vec2 = [0, 0];
  const finish = () => {
    if (distance2(at, start) > SAME_POINT_MM) curves.push(line(at, start));
    if (curves.length > 0) found.push({ closed: true, curves });
    curves = [];
  };
  for (const command of commands) {
    if (command.type === 'Z') {
      finish();
      at = start;
      continue;
    }
    const to = place([command.x, command.y]);
    if (command.type === 'M') {
      // Not every font closes its outlines with a command of its own.
      finish();
      start = to;
    } else if (command.type === 'L') {
      if (distance2(at, to) > SAME_POINT_MM) curves.push(line(at, to));
    } else if (command.type === 'Q')
      curves.push({ kind: 'bezier', points: [at, place([command.x1, command.y1]), to] });
    else
      curves.push({
        kind: 'bezier',
        points: [at, place([command.x1, command.y1]), place([command.x2, command.y2]), to],
      });
    at = to;
  }
  finish();
  return found;
}
