/** Pictures of rack parts: what the kernel sees of them from the side, as lines. */
import {
  boxOfCurves,
  carryCurve,
  cubicPieces,
  emptyDocument,
  pathText,
  topParts,
  type CubicPiece,
  type Curve,
  type DrawnView,
  type KadrelDocument,
  type Sheet,
} from '@kadrel/core';

/** A picture of a rack part: lines, as the path of an SVG, and the box round them. */
export interface RackDrawing {
  readonly path: string;
  readonly viewBox: string;
}

/** The sheet that a rack part is drawn on. */
export const SHEET = 'sheet';
/** The view of it. */
export const VIEW = 'view';

/** The rack part alone, on a sheet with one view of it. */
export function drawnDocument(items: KadrelDocument['items']): KadrelDocument {
  const document = { ...emptyDocument(), items };
  const sheet: Sheet = {
    id: SHEET,
    name: SHEET,
    order: 1,
    paper: { width: 210, height: 297 },
    arrangement: 'first',
    lines: '0.35',
    title: { title: '', number: '', author: '', date: '', remarks: '' },
    partsList: false,
    border: 'none',
    views: {
      [VIEW]: {
        name: VIEW,
        order: 1,
        look: { kind: 'standard', from: 'isometric' },
        scale: 1,
        anchor: [0, 0, 0],
        at: [0, 0],
        hidden: 'none',
        smooth: 'none',
        centres: 'none',
        parts: topParts(document).map(({ id }) => id),
      },
    },
    dimensions: {},
    notes: {},
  };
  return { ...document, sheets: { [SHEET]: sheet } };
}

/** Round a picture, of its longer side. */
const MARGIN = 0.04;
/** Paper goes up, pictures go down. */
const DOWN = { x: [1, 0], y: [0, -1], shift: [0, 0] } as const;

/** Null where there is nothing to be seen. */
export function drawingOf({ lines }: DrawnView): RackDrawing | null {
  const paths = lines.visible.map(({ curves }) =>
    curves.flatMap((curve) => cubicPieces(carryCurve(DOWN, curve))).map(asCurve),
  );
  const box = boxOfCurves(paths.flat());
  if (!box) return null;
  const [[left, top], [right, bottom]] = [box.min, box.max];
  const rim = MARGIN * Math.max(right - left, bottom - top, 1);
  return {
    path: paths.map((curves) => pathText({ curves, closed: false })).join(''),
    viewBox: [left - rim, top - rim, right - left + 2 * rim, bottom - top + 2 * rim].join(' '),
  };
}

/** What every picture can show: lines, and curves of the second and the third degree. */
const asCurve = (points: CubicPiece): Curve =>
  points.length === 2 ? { kind: 'line', from: points[0], to: points[1] } : { kind: 'bezier', points };
