/** A sheet as a picture of pixels, painted without a browser from its SVG. */
import { FONT_WOFF, FormatError, reasonOf } from '@kadrel/core';
import { plainFont, svgOfSheet, type SheetExporter } from '@kadrel/kernel';
import { Resvg } from '@resvg/resvg-wasm';
import { loadPainter } from './painter.ts';

/** What printers resolve. Common practice, no source. */
const PIXELS_PER_INCH = 300;
/** More pixels than this to a side take more memory than a process has. */
const MAX_PIXELS = 16_000;
const MM_PER_INCH = 25.4;

/** @param pixelsPerInch 300 where nothing is said */
export const sheetPng = (pixelsPerInch = PIXELS_PER_INCH): SheetExporter => ({
  format: 'sheet-png',
  name: 'PNG',
  about: `One sheet as a picture, ${pixelsPerInch} pixels in an inch.`,
  extension: '.png',
  mime: 'image/png',
  holdsMany: false,
  async write([picture]) {
    const { width, height } = picture!.paper;
    const zoom = pixelsPerInch / MM_PER_INCH;
    if (Math.max(width, height) * zoom > MAX_PIXELS)
      throw new FormatError(reasonOf('file.pixels-dpi', { name: picture!.name, max: MAX_PIXELS }));
    await loadPainter();
    const letters = plainFont(Uint8Array.from(Buffer.from(FONT_WOFF, 'base64')));
    const painted = new Resvg(svgOfSheet(picture!), {
      fitTo: { mode: 'width', value: Math.round(width * zoom) },
      font: { fontBuffers: [letters] },
    }).render();
    try {
      return painted.asPng();
    } finally {
      painted.free();
    }
  },
});
