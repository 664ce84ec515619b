/** A sheet, with what the kernel tells of it → what stands on the paper. */
import { carryCurve, circle, type DrawnPath } from '../curves/curve.ts';
import { boxOfCurves, flattened } from '../curves/flattened.ts';
import { definitionOf } from '../document/items.ts';
import type { KadrelDocument } from '../document/schema.ts';
import {
  inOrder,
  type Dimension,
  type Sheet,
  type SheetNote,
  type SheetView,
  type Tie,
} from '../document/sheet.ts';
import { valueOf } from '../recipes/numbers.ts';
import type { DrawnView, TiesFound } from '../questions/question.ts';
import { isSection } from '../sections/cuts.ts';
import type { Affine2, Vec2 } from '../space/vector2.ts';
import { degrees } from '../space/angle.ts';
import { centreMarks } from './centreMarks.ts';
import { detailLetters, detailOf, detailRings } from './details.ts';
import { drawDimension } from './dimensions.ts';
import { isMeasured } from './measuring.ts';
import { hatchAngle, hatched } from './hatching.ts';
import { frameOfView, onPaper } from './looks.ts';
import {
  LETTERS,
  arrow,
  stroke,
  textWidth,
  widthOf,
  type Mark,
  type SheetPicture,
  type Stroke,
} from './marks.ts';
import { northMarks, northOnPaper } from './northArrow.ts';
import { formatScale } from './paper.ts';
import { lettersOf, sectionMarks } from './sectionMarks.ts';
import { sheetNow } from './ties.ts';
import { countedParts, surroundings } from './titleBlock.ts';

/** What the kernel has answered so far; views that are not there yet are left out. */
export interface SheetReplies {
  /** By the ids of views. */
  readonly views: Readonly<Record<string, DrawnView>>;
  readonly ties: TiesFound;
}

interface Part {
  readonly marks: readonly Mark[];
  /** What is wrong with it. */
  readonly fault?: string;
  /** It cannot be drawn as it should, and stands out. */
  readonly isBroken?: true;
}

/** Between hatch lines, mm on paper. Common practice, no source. */
const HATCH_SPACING = 2.5;

/** Everything that is on a sheet, as marks on paper. */
export function composeSheet(document: KadrelDocument, stored: Sheet, replies: SheetReplies): SheetPicture {
  const sheet = sheetNow(stored, replies.ties);
  const parts = [
    ...inOrder(sheet.views).map(
      ([id, view]) =>
        [
          id,
          viewPart({ document, sheet, view, id, isLost: replies.ties[id]?.[0] === null }, replies.views[id]),
        ] as const,
    ),
    ...inOrder(sheet.dimensions).map(
      ([id, one]) => [id, dimensionPart({ document, sheet }, one, replies.ties[id])] as const,
    ),
    ...inOrder(sheet.notes).map(([id, note]) => {
      const on = { document, sheet };
      const { north } = note;
      return [id, north ? northPart(on, note, north) : notePart(on, note, replies.ties[id])] as const;
    }),
  ];
  return {
    name: sheet.name,
    paper: sheet.paper,
    lineWidth: widthOf(sheet),
    marks: [
      ...surroundings(document, sheet),
      ...parts.flatMap(([of, { marks, isBroken }]) =>
        marks.map((mark): Mark => ({ ...mark, of, tone: isBroken ? 'warning' : 'plain' })),
      ),
    ],
    faults: parts.flatMap(([of, { fault }]) => (fault === undefined ? [] : [{ of, words: fault }])),
  };
}

interface ViewOn {
  readonly document: KadrelDocument;
  readonly sheet: Sheet;
  readonly view: SheetView;
  readonly id: string;
  /** What it is a detail about is gone. */
  readonly isLost?: boolean;
}

/** Drawn from the thin to the heavy, so that a hidden line never covers a visible one. */
function viewPart({ document, sheet, view, id, isLost }: ViewOn, drawn: DrawnView | undefined): Part {
  const frame = frameOfView(document, view);
  if (!frame) return warning(view.at, `${view.name}: what it shows is not there any more.`);
  if (!drawn) return { marks: [] };
  if (drawn.fault !== undefined && drawn.lines.visible.length === 0)
    return warning(view.at, `${view.name}: ${drawn.fault}`);
  const map: Affine2 = { x: [view.scale, 0], y: [0, view.scale], shift: view.at };
  const paths = (strokeOf: Stroke, list: readonly DrawnPath[]): Mark[] =>
    list.map(({ closed, curves }) => ({
      kind: 'path',
      stroke: strokeOf,
      closed,
      curves: curves.map((curve) => carryCurve(map, curve)),
    }));
  if (view.look.kind === 'slice')
    return {
      marks: [...paths('engrave', drawn.lines.smooth), ...paths('cut', drawn.lines.visible), labelOf(view)],
    };
  const shown = [
    ...cutMarks(document, view, { drawn, map }),
    ...(view.hidden === 'dashed' ? paths('hidden', drawn.lines.hidden) : []),
    ...(view.smooth === 'thin' ? paths('smooth', drawn.lines.smooth) : []),
    ...paths('visible', drawn.lines.visible),
    ...drawn.cuts.flatMap((cut) => paths('cut', cut.paths)),
    ...centreMarks(view, drawn),
    ...(view.detail ? [] : sectionMarks(document, { sheet, view, frame, drawn })),
  ];
  const marks = [
    ...detailOf(view, shown),
    ...detailRings(document, sheet, id),
    ...captionOf({ document, sheet, view, id }, drawn),
  ];
  const faults = [...(isLost ? ['what it is about is gone.'] : []), drawn.fault ?? []].flat();
  return faults.length === 0 ? { marks } : { marks, fault: `${view.name}: ${faults.join(' ')}` };
}

/** The number of a layer, where its middle is. */
const labelOf = ({ at, name }: SheetView): Mark => ({
  kind: 'text',
  text: name.replace(/^\D+/, '') || name,
  at,
  align: 'middle',
  height: LETTERS.small,
  turn: 0,
});

interface Cutting {
  readonly drawn: DrawnView;
  readonly map: Affine2;
}

function cutMarks(document: KadrelDocument, { look, scale }: SheetView, { drawn, map }: Cutting): Mark[] {
  const plane = look.kind === 'section' ? document.items[look.plane] : undefined;
  if (!plane || !isSection(plane)) return [];
  const { fill, spacing } = plane.recipe.base;
  const own = valueOf(spacing) * scale;
  return drawn.cuts.flatMap(({ item, paths }, rank): Mark[] => {
    const loops = paths.map(({ curves }) => curves.map((curve) => carryCurve(map, curve)));
    if ((document.items[item]?.cutFill ?? fill) === 'plain')
      return [{ kind: 'fill', shade: 'light', loops: loops.map((loop) => loop.flatMap(flattened)) }];
    const hatch = { angle: hatchAngle(rank), spacing: own > 0 ? own : HATCH_SPACING };
    return hatched(loops, hatch).map(([from, to]) => stroke('hatch', from, to));
  });
}

/** Over a section its letters, over a detail its letter; and the scale, where it is not that of the sheet. */
function captionOf({ sheet, view, id }: ViewOn, drawn: DrawnView): Mark[] {
  const { look, detail } = view;
  const letter = look.kind === 'section' && !detail ? lettersOf(sheet).get(look.plane) : undefined;
  const words = [
    ...(detail ? [detailLetters(sheet).get(id)!] : []),
    ...(letter === undefined ? [] : [`${letter}–${letter}`]),
    ...(view.scale === usualScale(sheet) ? [] : [`(${formatScale(view.scale)})`]),
  ];
  if (detail) {
    const at: Vec2 = [view.at[0], view.at[1] + detail.radius * view.scale + CAPTION_GAP];
    return [{ kind: 'text', text: words.join(' '), at, align: 'middle', height: LETTERS.large, turn: 0 }];
  }
  const all = [...drawn.lines.visible, ...drawn.cuts.flatMap(({ paths }) => paths)];
  const box = boxOfCurves(all.flatMap(({ curves }) => curves));
  if (words.length === 0 || !box) return [];
  const at: Vec2 = [
    view.at[0] + (view.scale * (box.min[0] + box.max[0])) / 2,
    view.at[1] + view.scale * box.max[1] + CAPTION_GAP,
  ];
  return [{ kind: 'text', text: words.join(' '), at, align: 'middle', height: LETTERS.large, turn: 0 }];
}

/** Between what is drawn and its caption, mm. Common practice, no source. */
const CAPTION_GAP = 4;

/** The scale of most views; the others tell theirs. */
function usualScale({ views }: Sheet): number | undefined {
  const counts = new Map<number, number>();
  for (const { scale } of Object.values(views)) counts.set(scale, (counts.get(scale) ?? 0) + 1);
  return [...counts].sort(([, a], [, b]) => b - a)[0]?.[0];
}

const warning = (at: Vec2, fault: string): Part => ({
  marks: [{ kind: 'text', text: fault, at, align: 'middle', height: LETTERS.usual, turn: 0 }],
  fault,
  isBroken: true,
});

interface OnSheet {
  readonly document: KadrelDocument;
  readonly sheet: Sheet;
}

/** What it was tied to is gone: it stands where that was, in the warning tone, and says so. */
function dimensionPart(
  { document, sheet }: OnSheet,
  dimension: Dimension,
  found: TiesFound[string] | undefined,
): Part {
  const view = sheet.views[dimension.view]!;
  const frame = frameOfView(document, view);
  if (!frame || !found) return { marks: [] };
  const places = found.flatMap((place) => place ?? []);
  const map = onPaper(frame, view);
  if (places.length < dimension.ties.length)
    return goneDimension(
      dimension,
      dimension.ties.map(({ point }) => map(point)),
    );
  const result = drawDimension({ document, dimension, view, frame, places });
  if (isMeasured(result)) return { marks: result.marks };
  return warning(map(places[0]!.at), `${dimension.name}: ${result.words}.`);
}

function goneDimension({ name }: Dimension, points: readonly Vec2[]): Part {
  const [first] = points;
  const text = `${name}: what it measured is gone`;
  return {
    marks: [
      ...(points.length > 1 ? [stroke('dimension', ...points)] : []),
      { kind: 'text', text, at: first!, align: 'start', height: LETTERS.usual, turn: 0 },
    ],
    fault: `${text}.`,
    isBroken: true,
  };
}

/** What stands for the number that a part has in the parts list. */
const NUMBER = '#';

const ringRadius = (height: number) => 1.4 * height;
const ringRound = ([x, y]: Vec2, text: string, height: number) =>
  circle([x + textWidth(text, height) / 2, y + height / 2], ringRadius(height));

/** Undefined where it is not listed. */
function partNumber(document: KadrelDocument, sheet: Sheet, { named }: Tie): string | undefined {
  const part = named && document.items[named.part];
  if (!part) return undefined;
  const at = [...countedParts(document, sheet).keys()].indexOf(definitionOf(document, part).name);
  return at < 0 ? undefined : String(at + 1);
}

/** Between the lines of a note, in heights of its capitals. Common practice, no source. */
const LINE_PITCH = 1.6;

function northPart(
  { document, sheet }: OnSheet,
  { name, at, height }: SheetNote,
  { view, bearing }: NonNullable<SheetNote['north']>,
): Part {
  const frame = frameOfView(document, sheet.views[view]!);
  const way = frame && northOnPaper(frame, bearing);
  if (way) return { marks: northMarks(at, way, height) };
  return frame ? warning(at, `${name}: its view looks along north.`) : { marks: [] };
}

function notePart({ document, sheet }: OnSheet, note: SheetNote, found: TiesFound[string] | undefined): Part {
  const { at, height, leader } = note;
  const number = note.text === NUMBER && leader ? partNumber(document, sheet, leader.tie) : undefined;
  const text = number ?? note.text;
  const lines = text.split('\n').map((row, i): Mark => {
    const place: Vec2 = [at[0], at[1] - i * LINE_PITCH * height];
    return { kind: 'text', text: row, at: place, align: 'start', height, turn: 0 };
  });
  const ring: Mark[] =
    number === undefined
      ? []
      : [{ kind: 'path', stroke: 'dimension', closed: true, curves: [ringRound(at, text, height)] }];
  if (!leader) return { marks: lines };
  const view = sheet.views[leader.view]!;
  const frame = frameOfView(document, view);
  const [place] = found ?? [];
  if (!frame || place === undefined) return { marks: lines };
  const to = onPaper(frame, view)(place?.at ?? leader.tie.point);
  const width = Math.max(...text.split('\n').map((row) => textWidth(row, height)));
  const isRight = to[0] > at[0] + width / 2;
  const rim = number === undefined ? 1 : ringRadius(height) - width / 2;
  const from: Vec2 = [isRight ? at[0] + width + rim : at[0] - rim, at[1] + height / 2];
  const bearing = degrees(Math.atan2(to[1] - from[1], to[0] - from[0]));
  const marks = [...lines, ...ring, stroke('dimension', from, to), arrow(to, bearing)];
  return place ? { marks } : { marks, fault: `${note.name}: what it points at is gone.`, isBroken: true };
}
