/** Sheets as PDF: a page each, at its true size, with vectors and embedded letters. */
import {
  FONT_WOFF,
  STROKES,
  capitalsShare,
  cubicPieces,
  missingLetters,
  type Mark,
  type SheetPicture,
  type Vec2,
} from '@kadrel/core';
import type { PDFFont, PDFOperator, PDFPage } from '@cantoo/pdf-lib';
import type { SheetExporter } from './declare.ts';
import { plainFont } from './woff.ts';

/** Portable document: for printing. */
export const sheetPdf: SheetExporter = {
  format: 'sheet-pdf',
  name: 'PDF',
  about: 'Sheets as pages at their true size, with lines and texts.',
  extension: '.pdf',
  mime: 'application/pdf',
  holdsMany: true,
  write: pdfOfSheets,
};

/** Points of a PDF in a millimetre. Source: ISO 32000: 72 points are an inch. */
const POINTS_PER_MM = 72 / 25.4;
const GREY = 0.85;
const RED = [0.7, 0.15, 0.12] as const;

type Pdf = typeof import('@cantoo/pdf-lib');

/** A page for each picture, 72 points to the inch. */
export async function pdfOfSheets(pictures: readonly SheetPicture[]): Promise<Uint8Array> {
  // Only who writes a PDF loads what that takes.
  const [pdf, { default: fontkit }] = await Promise.all([
    import('@cantoo/pdf-lib'),
    import('@pdf-lib/fontkit'),
  ]);
  const document = await pdf.PDFDocument.create();
  document.registerFontkit(fontkit);
  document.setProducer('Kadrel');
  document.setTitle(pictures.map(({ name }) => name).join(', '));
  const woff = Uint8Array.from(atob(FONT_WOFF), (letter) => letter.charCodeAt(0));
  const font = await document.embedFont(plainFont(woff), { subset: false });
  for (const picture of pictures) {
    const { width, height } = picture.paper;
    const page = document.addPage([width * POINTS_PER_MM, height * POINTS_PER_MM]);
    drawPage(pdf, page, { picture, font });
  }
  return document.save();
}

interface Drawn {
  readonly picture: SheetPicture;
  readonly font: PDFFont;
}

function drawPage(pdf: Pdf, page: PDFPage, { picture, font }: Drawn): void {
  for (const mark of picture.marks) {
    if (mark.kind === 'text') drawText(pdf, page, { mark, font });
    else page.pushOperators(...shapeOf(pdf, mark, picture.lineWidth));
  }
}

const scaled = ([x, y]: Vec2): [number, number] => [x * POINTS_PER_MM, y * POINTS_PER_MM];
const isWarning = ({ tone }: Mark) => tone === 'warning';

function drawText(
  pdf: Pdf,
  page: PDFPage,
  { mark, font }: { readonly mark: Extract<Mark, { kind: 'text' }>; readonly font: PDFFont },
): void {
  const size = (mark.height / capitalsShare()) * POINTS_PER_MM;
  const text = withKnownLetters(mark.text);
  const share = { start: 0, middle: 0.5, end: 1 }[mark.align];
  const back = share * font.widthOfTextAtSize(text, size);
  const turn = (mark.turn * Math.PI) / 180;
  const [x, y] = scaled(mark.at);
  page.drawText(text, {
    x: x - back * Math.cos(turn),
    y: y - back * Math.sin(turn),
    size,
    font,
    rotate: pdf.degrees(mark.turn),
    color: isWarning(mark) ? pdf.rgb(...RED) : pdf.grayscale(0),
  });
}

/** Letters that the font has no picture of are written as their number. */
function withKnownLetters(text: string): string {
  const missing = new Set(missingLetters(text));
  return [...text]
    .map((letter) =>
      missing.has(letter) ? `[${letter.codePointAt(0)!.toString(16).toUpperCase()}]` : letter,
    )
    .join('');
}

function shapeOf(pdf: Pdf, mark: Exclude<Mark, { kind: 'text' }>, lineWidth: number): PDFOperator[] {
  const { pushGraphicsState, popGraphicsState } = pdf;
  const inner = mark.kind === 'fill' ? fillOf(pdf, mark) : strokeOf(pdf, mark, lineWidth);
  return [pushGraphicsState(), ...inner, popGraphicsState()];
}

function fillOf(pdf: Pdf, mark: Extract<Mark, { kind: 'fill' }>): PDFOperator[] {
  const shade = mark.shade === 'dark' ? 0 : GREY;
  const colour = isWarning(mark) ? pdf.setFillingRgbColor(...RED) : pdf.setFillingGrayscaleColor(shade);
  const loops = mark.loops.flatMap(([first, ...others]) => [
    pdf.moveTo(...scaled(first!)),
    ...others.map((at) => pdf.lineTo(...scaled(at))),
    pdf.closePath(),
  ]);
  return [colour, ...loops, pdf.fillEvenOdd()];
}

function strokeOf(pdf: Pdf, mark: Extract<Mark, { kind: 'path' }>, lineWidth: number): PDFOperator[] {
  const { width, dashes } = STROKES[mark.stroke];
  const wide = width * lineWidth * POINTS_PER_MM;
  const [first] = mark.curves;
  if (!first) return [];
  const pieces = mark.curves.flatMap(cubicPieces);
  const colour = isWarning(mark) ? pdf.setStrokingRgbColor(...RED) : pdf.setStrokingGrayscaleColor(0);
  return [
    colour,
    pdf.setLineWidth(wide),
    pdf.setDashPattern(
      dashes.map((n) => n * wide),
      0,
    ),
    pdf.moveTo(...scaled(startOfPiece(pieces[0]!))),
    ...pieces.map((piece) => pieceOperator(pdf, piece)),
    ...(mark.closed ? [pdf.closePath()] : []),
    pdf.stroke(),
  ];
}

type Piece = ReturnType<typeof cubicPieces>[number];
const startOfPiece = (piece: Piece): Vec2 => piece[0];

const pieceOperator = (pdf: Pdf, piece: Piece): PDFOperator =>
  piece.length === 2
    ? pdf.lineTo(...scaled(piece[1]))
    : pdf.appendBezierCurve(...scaled(piece[1]), ...scaled(piece[2]), ...scaled(piece[3]));
