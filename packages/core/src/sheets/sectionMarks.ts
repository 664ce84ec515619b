/** Where a section of the sheet is cut, in views that look along its plane: a chain line, with arrows that look as the section does. */
import type { KadrelDocument } from '../document/schema.ts';
import { inOrder, type Sheet, type SheetView } from '../document/sheet.ts';
import type { DrawnView } from '../questions/question.ts';
import { degrees } from '../space/angle.ts';
import { column } from '../space/matrix.ts';
import type { Pose } from '../space/pose.ts';
import { along, dot } from '../space/vector.ts';
import { boxOfCurves } from '../curves/flattened.ts';
import { add2, dot2, scale2, subtract2, unit2, type Vec2 } from '../space/vector2.ts';
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
    return markOf(through, sight, { corners, letter });
  });
}

function markOf(
  through: Vec2,
  sight: Vec2,
  { corners, letter }: { readonly corners: readonly Vec2[]; readonly letter: string },
): Mark[] {
  const way: Vec2 = [-sight[1], sight[0]];
  const spans = corners.map((corner) => dot2(subtract2(corner, through), way));
  const at = (s: number) => add2(through, scale2(way, s));
  const bearing = degrees(Math.atan2(sight[1], sight[0]));
  const ends = [
    [Math.min(...spans) - BEYOND, 1],
    [Math.max(...spans) + BEYOND, -1],
  ] as const;
  return [
    stroke('centre', at(ends[0][0]), at(ends[1][0])),
    ...ends.flatMap(([s, inward]): Mark[] => {
      const end = at(s);
      const foot = subtract2(end, scale2(sight, END));
      const place = subtract2(subtract2(end, scale2(sight, END + 4)), [0, LETTERS.large / 2]);
      return [
        stroke('mark', end, at(s + inward * END)),
        stroke('dimension', foot, end),
        arrow(end, bearing),
        { kind: 'text', text: letter, at: place, align: 'middle', height: LETTERS.large, turn: 0 },
      ];
    }),
  ];
}
