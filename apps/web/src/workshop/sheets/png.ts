/** A sheet as a picture of pixels, painted by the browser. */
import {
  FormatError,
  reasonOf,
  INK,
  LIGHT_FILL,
  STROKES,
  capitalsShare,
  carryCurve,
  pathText,
  type Mark,
  type SheetPicture,
} from '@kadrel/core';
import type { SheetExporter } from '@kadrel/kernel';

/** Pixels in an inch: what printers resolve. Common practice, no source. */
const PIXELS_PER_INCH = 300;
/** Browsers paint no larger pictures. */
const MAX_PIXELS = 16_000;

export const PNG: SheetExporter = {
  format: 'sheet-png',
  name: 'PNG',
  about: `One sheet as a picture, ${PIXELS_PER_INCH} pixels in an inch.`,
  extension: '.png',
  mime: 'image/png',
  holdsMany: false,
  write: ([picture]) => painted(picture!),
};

async function painted(picture: SheetPicture): Promise<Uint8Array> {
  const { width, height } = picture.paper;
  const scale = Math.min(PIXELS_PER_INCH / 25.4, MAX_PIXELS / Math.max(width, height));
  const canvas = new OffscreenCanvas(Math.round(width * scale), Math.round(height * scale));
  const context = canvas.getContext('2d');
  if (!context) throw new FormatError(reasonOf('file.no-picture', {}));
  context.fillStyle = '#ffffff';
  context.fillRect(0, 0, canvas.width, canvas.height);
  // Letters are there once the page has drawn some.
  await document.fonts.ready;
  for (const mark of picture.marks) {
    context.setTransform(scale, 0, 0, scale, 0, 0);
    paint(context, mark, picture);
  }
  const blob = await canvas.convertToBlob({ type: 'image/png' });
  return new Uint8Array(await blob.arrayBuffer());
}

function paint(
  context: OffscreenCanvasRenderingContext2D,
  mark: Mark,
  { paper, lineWidth }: SheetPicture,
): void {
  const ink = INK[mark.tone ?? 'plain'];
  const down = { x: [1, 0], y: [0, -1], shift: [0, paper.height] } as const;
  if (mark.kind === 'text') {
    context.fillStyle = ink;
    context.translate(mark.at[0], paper.height - mark.at[1]);
    context.rotate((-mark.turn * Math.PI) / 180);
    context.font = `600 ${mark.height / capitalsShare()}px "Archivo Variable"`;
    context.textAlign = mark.align === 'middle' ? 'center' : mark.align;
    context.fillText(mark.text, 0, 0);
    return;
  }
  if (mark.kind === 'fill') {
    const loops = mark.loops.map((loop) => `M${loop.map(([x, y]) => `${x} ${paper.height - y}`).join('L')}Z`);
    context.fillStyle = mark.shade === 'dark' ? ink : LIGHT_FILL;
    context.fill(new Path2D(loops.join('')), 'evenodd');
    return;
  }
  const { width, dashes } = STROKES[mark.stroke];
  const wide = width * lineWidth;
  context.strokeStyle = ink;
  context.lineWidth = wide;
  context.setLineDash(dashes.map((n) => n * wide));
  const curves = mark.curves.map((curve) => carryCurve(down, curve));
  context.stroke(new Path2D(pathText({ curves, closed: mark.closed })));
}
