/** A sheet as SVG, at its true size, with its letters. */
import {
  FONT_WOFF,
  INK,
  LIGHT_FILL,
  STROKES,
  capitalsShare,
  carryCurve,
  pathText,
  type Affine2,
  type Mark,
  type SheetPicture,
  type Vec2,
} from '@kadrel/core';
import type { SheetExporter } from './declare.ts';

/** Scalable vector graphics: for other drawing programs and for the web. */
export const sheetSvg: SheetExporter = {
  format: 'sheet-svg',
  name: 'SVG',
  about: 'One sheet, as lines and texts at its true size.',
  extension: '.svg',
  mime: 'image/svg+xml',
  holdsMany: false,
  write: ([picture]) => Promise.resolve(svgOfSheet(picture!)),
};

const FONT = 'Kadrel Letters';

/** A file by itself: it brings its letters along. */
export function svgOfSheet(picture: SheetPicture): string {
  const { width, height } = picture.paper;
  const font = `@font-face{font-family:"${FONT}";src:url(data:font/woff;base64,${FONT_WOFF})}`;
  return (
    `<?xml version="1.0" encoding="UTF-8"?>\n` +
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width}mm" height="${height}mm" viewBox="0 0 ${width} ${height}">\n` +
    `<title>${escaped(picture.name)}</title>\n<style>${font}</style>\n` +
    `<rect width="${width}" height="${height}" fill="#ffffff"/>\n${marksAsSvg(picture, FONT)}</svg>\n`
  );
}

/** What stands on the sheet, for a picture of the size of the paper, in mm, Y down. */
export function marksAsSvg({ marks, paper, lineWidth }: SheetPicture, font: string): string {
  const down: Affine2 = { x: [1, 0], y: [0, -1], shift: [0, paper.height] };
  const place = ([x, y]: Vec2) => `${short(x)} ${short(paper.height - y)}`;
  return marks.map((mark) => `${markAsSvg(mark, { down, place, lineWidth, font })}\n`).join('');
}

interface Drawing {
  readonly down: Affine2;
  readonly place: (at: Vec2) => string;
  readonly lineWidth: number;
  readonly font: string;
}

function markAsSvg(mark: Mark, { down, place, lineWidth, font }: Drawing): string {
  const ink = INK[mark.tone ?? 'plain'];
  const of = mark.of === undefined ? '' : ` data-of="${mark.of}"`;
  if (mark.kind === 'text') {
    const size = short(mark.height / capitalsShare());
    const turn = mark.turn === 0 ? '' : ` rotate(${short(-mark.turn)})`;
    return `<text${of} transform="translate(${place(mark.at)})${turn}" font-family="${font}" font-weight="600" font-size="${size}" text-anchor="${mark.align}" fill="${ink}">${escaped(mark.text)}</text>`;
  }
  if (mark.kind === 'fill') {
    const data = mark.loops.map((loop) => `M${loop.map(place).join('L')}Z`).join('');
    const fill = mark.shade === 'dark' ? ink : LIGHT_FILL;
    return `<path${of} d="${data}" fill="${fill}" fill-rule="evenodd"/>`;
  }
  const { width, dashes } = STROKES[mark.stroke];
  const wide = width * lineWidth;
  const dashed =
    dashes.length === 0 ? '' : ` stroke-dasharray="${dashes.map((n) => short(n * wide)).join(' ')}"`;
  const curves = mark.curves.map((curve) => carryCurve(down, curve));
  return `<path${of} data-stroke="${mark.stroke}" d="${pathText({ curves, closed: mark.closed })}" fill="none" stroke="${ink}" stroke-width="${short(wide)}"${dashed}/>`;
}

/** To a millionth of a millimetre. */
const short = (n: number) => String(Number(n.toFixed(6)));

const escaped = (text: string) =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');
