/** Where a section of the sheet is cut, in views that look along its plane: a chain line, with arrows that look as the section does. */
import { worldFromPart } from '../document/items.ts';
import type { ItemId, KadrelDocument } from '../document/schema.ts';
import { inOrder, type Sheet, type SheetView } from '../document/sheet.ts';
import type { DrawnView } from '../questions/question.ts';
import { degrees } from '../space/angle.ts';
import { column } from '../space/matrix.ts';
import type { Pose } from '../space/pose.ts';
import { along, dot, type Vec3 } from '../space/vector.ts';
import { isSection } from '../sections/cuts.ts';
import { boxOfCurves } from '../curves/flattened.ts';
import { add2, dot2, length2, scale2, subtract2, unit2, type Vec2 } from '../space/vector2.ts';
import { frameOfLook, onPaper } from './looks.ts';
import { LETTERS, arrow, stroke, type Mark } from './marks.ts';

/** Beyond the outline, mm; of the thick ends, mm. Common practice, no source. */
const BEYOND = 6;
const END = 6;
/** How far a plane may lean from the line of sight and still be seen as a line. */
const EDGE_ON = 1e-9;

/** `A`, `B`, … for the sections of a sheet in the order in which they were placed. */
export function lettersOf(sheet: Sheet): ReadonlyMap<string, string> {
  const planes = inOrder(sheet.views).flatMap(([, { look }]) =>
    look.kind === 'section' ? [look.plane] : [],
  );
  return new Map([...new Set(planes)].map((plane, i) => [plane, letterAt(i)]));
}

const letterAt = (i: number): string =>
  `${i < 26 ? '' : letterAt(Math.floor(i / 26) - 1)}${String.fromCharCode(65 + (i % 26))}`;

/** A view, and what is drawn in it. */
export interface Marking {
  readonly sheet: Sheet;
  readonly view: SheetView;
  readonly frame: Pose;
  readonly drawn: DrawnView;
}

/** Arrows and letters where a view sees a section plane from its edge. */
export function sectionMarks(document: KadrelDocument, { sheet, view, frame, drawn }: Marking): Mark[] {
  const box = boxOfCurves(drawn.lines.visible.flatMap(({ curves }) => curves));
  if (view.look.kind === 'section' || !box) return [];
  return [...lettersOf(sheet)].flatMap(([plane, letter]) => {
    const cut = frameOfLook(document, { kind: 'section', plane });
    if (!cut) return [];
    const towards = column(cut.turn, 2);
    if (Math.abs(dot(towards, column(frame.turn, 2))) > EDGE_ON) return [];
    const map = onPaper(frame, view);
    const through = map(cut.shift);
    // The section looks against its own way out.
    const sight = unit2(subtract2(map(along(cut.shift, towards, -1)), through));
    const corners = [
      box.min,
      [box.max[0], box.min[1]] as Vec2,
      box.max,
      [box.min[0], box.max[1]] as Vec2,
    ].map((p) => add2(view.at, scale2(p, view.scale)));
    const trace = { through, sight, corners };
    const side = quarterSide(document, plane, map);
    return side ? quarterMark(trace, letter, side) : halfMark(trace, letter);
  });
}

/** Where a section plane is seen as a line on paper. */
interface Trace {
  readonly through: Vec2;
  /** Which way the section looks. */
  readonly sight: Vec2;
  /** Of what is drawn in the view. */
  readonly corners: readonly Vec2[];
}

/** How far the corners reach from where the trace goes through, along a way. */
const spanOf = ({ through, corners }: Trace, way: Vec2): readonly [low: number, high: number] => {
  const spans = corners.map((corner) => dot2(subtract2(corner, through), way));
  return [Math.min(...spans) - BEYOND, Math.max(...spans) + BEYOND];
};

function halfMark(trace: Trace, letter: string): Mark[] {
  const way: Vec2 = [-trace.sight[1], trace.sight[0]];
  const [low, high] = spanOf(trace, way);
  const at = (s: number) => add2(trace.through, scale2(way, s));
  return [
    stroke('centre', at(low), at(high)),
    ...endMark(trace, letter, [at(low), way]),
    ...endMark(trace, letter, [at(high), scale2(way, -1)]),
  ];
}

/** From where the quarter begins to its one side, and towards whom looks at its cut. */
function quarterMark(trace: Trace, letter: string, side: Vec2): Mark[] {
  const { through, sight } = trace;
  const back = scale2(sight, -1);
  const [end, foot] = [side, back].map((way) =>
    add2(through, scale2(way, Math.max(BEYOND, spanOf(trace, way)[1]))),
  ) as [Vec2, Vec2];
  return [
    stroke('centre', end, through, foot),
    stroke('mark', add2(through, scale2(side, END / 2)), through, add2(through, scale2(back, END / 2))),
    stroke('mark', foot, add2(foot, scale2(sight, END))),
    ...endMark(trace, letter, [end, scale2(side, -1)]),
  ];
}

/** The thick end of a trace, with its arrow and its letter. */
function endMark({ sight }: Trace, letter: string, [end, inward]: readonly [Vec2, Vec2]): Mark[] {
  const foot = subtract2(end, scale2(sight, END));
  const place = subtract2(subtract2(end, scale2(sight, END + 4)), [0, LETTERS.large / 2]);
  return [
    stroke('mark', end, add2(end, scale2(inward, END))),
    stroke('dimension', foot, end),
    arrow(end, degrees(Math.atan2(sight[1], sight[0]))),
    { kind: 'text', text: letter, at: place, align: 'middle', height: LETTERS.large, turn: 0 },
  ];
}

/** Where the X of a section that takes out a quarter goes on paper; undefined for other sections, and where it is seen from its end. */
function quarterSide(document: KadrelDocument, plane: ItemId, map: (point: Vec3) => Vec2): Vec2 | undefined {
  const part = document.items[plane];
  if (!part || !isSection(part) || part.recipe.base.form !== 'corner') return undefined;
  const { turn, shift } = worldFromPart(document, plane);
  const x = subtract2(map(along(shift, column(turn, 0), 1)), map(shift));
  return length2(x) < EDGE_ON ? undefined : unit2(x);
}
