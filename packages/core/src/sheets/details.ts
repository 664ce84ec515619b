/** Details: rings with letters in the views that they are taken from, and what is drawn of them. */
import { circle } from '../curves/curve.ts';
import type { KadrelDocument } from '../document/schema.ts';
import { inOrder, type Sheet, type SheetView } from '../document/sheet.ts';
import { add2, scale2, type Vec2 } from '../space/vector2.ts';
import { clippedTo } from './clipping.ts';
import { frameOfView, onPaper } from './looks.ts';
import { LETTERS, type Mark } from './marks.ts';

/** Between a ring and its letter, mm. Common practice, no source. */
const LETTER_GAP = 1;
/** Where the letter of a ring stands: up and to the right. */
const LETTER_WAY: Vec2 = [Math.SQRT1_2, Math.SQRT1_2];

/** `Z`, `Y`, … in the order in which they were placed: from the end, so that they are none of the letters of sections. */
export function detailLetters({ views }: Sheet): ReadonlyMap<string, string> {
  const details = inOrder(views).filter(([, { detail }]) => detail);
  return new Map(details.map(([id], i) => [id, letterAt(i)]));
}

const LETTERS_IN_ALL = 26;
const letterAt = (i: number): string =>
  `${String.fromCharCode(90 - (i % LETTERS_IN_ALL))}${i < LETTERS_IN_ALL ? '' : String(Math.floor(i / LETTERS_IN_ALL))}`;

/** The rings of details in the view that they are taken from. */
export function detailRings(document: KadrelDocument, sheet: Sheet, viewId: string): Mark[] {
  const view = sheet.views[viewId]!;
  const frame = frameOfView(document, view);
  if (!frame) return [];
  return [...detailLetters(sheet)].flatMap(([id, letter]): Mark[] => {
    const { detail, anchor } = sheet.views[id]!;
    if (detail?.of !== viewId) return [];
    const centre = onPaper(frame, view)(anchor);
    const radius = detail.radius * view.scale;
    const at = add2(centre, scale2(LETTER_WAY, radius + LETTER_GAP));
    return [
      ringMark(centre, radius),
      { kind: 'text', text: letter, at, align: 'start', height: LETTERS.large, turn: 0 },
    ];
  });
}

const ringMark = (centre: Vec2, radius: number): Mark => ({
  kind: 'path',
  stroke: 'dimension',
  closed: true,
  curves: [circle(centre, radius)],
});

/** What is drawn of a view, as far as it shows it. */
export function detailOf({ detail, at, scale }: SheetView, marks: readonly Mark[]): readonly Mark[] {
  if (!detail) return marks;
  const ring = { centre: at, radius: detail.radius * scale };
  return [...clippedTo(ring, marks), ringMark(at, ring.radius)];
}
