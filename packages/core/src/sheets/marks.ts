/** What stands on a drawn sheet, ready for any file format: lines, filled areas and texts, in mm from the lower left corner. */
import type { Sheet } from '../document/sheet.ts';
import { line, type Curve } from '../curves/curve.ts';
import { radians } from '../space/angle.ts';
import type { Vec2 } from '../space/vector2.ts';
import type { Paper } from './paper.ts';

export { widthOfText as textWidth } from '../profiles/text.ts';

/** What a line stands for: its width and its dashes follow. */
export const STROKES = {
  visible: { width: 1, dashes: [] },
  /** Where round faces go on into others. */
  smooth: { width: 0.5, dashes: [] },
  hidden: { width: 0.5, dashes: [12, 3] },
  /** Outlines of what a section plane cuts. */
  cut: { width: 2, dashes: [] },
  /** Outlines that are marked on a layer and not cut. */
  engrave: { width: 0.5, dashes: [] },
  hatch: { width: 0.5, dashes: [] },
  dimension: { width: 0.5, dashes: [] },
  centre: { width: 0.5, dashes: [24, 3, 1, 3] },
  /** Of a section mark, at its ends. */
  mark: { width: 2, dashes: [] },
  frame: { width: 2, dashes: [] },
  table: { width: 0.5, dashes: [] },
} as const;
/** Dashes and gaps are given in widths of the line. Source of types 01, 02 and 04, and of widths: ISO 128-2, from memory. */
export type Stroke = keyof typeof STROKES;

/** What is wrong stands out. */
export type Tone = 'plain' | 'warning';

/** Of lines and dark fills, and of light ones, as #rrggbb. */
export const INK: Readonly<Record<Tone, string>> = { plain: '#000000', warning: '#b3261e' };
/** What is filled lightly on paper. */
export const LIGHT_FILL = '#d9d9d9';

interface Belongs {
  /** The view, the dimension or the note that it is of; none for the frame and the title block. */
  readonly of?: string;
  readonly tone?: Tone;
}

/** One thing that is drawn on paper. */
export type Mark = Belongs &
  (
    | {
        readonly kind: 'path';
        readonly stroke: Stroke;
        readonly closed: boolean;
        readonly curves: readonly Curve[];
      }
    /** What loops enclose, by the even-odd rule: arrows black, cut faces light. */
    | {
        readonly kind: 'fill';
        readonly shade: 'dark' | 'light';
        readonly loops: readonly (readonly Vec2[])[];
      }
    | {
        readonly kind: 'text';
        readonly text: string;
        /** Where the baseline begins, has its middle, or ends. */
        readonly at: Vec2;
        readonly align: 'start' | 'middle' | 'end';
        /** Of capitals, mm. */
        readonly height: number;
        /** Degrees, counter-clockwise. */
        readonly turn: number;
      }
  );
/** A text on paper. */
export type TextMark = Extract<Mark, { kind: 'text' }>;

/** A sheet as everyone draws it. */
export interface SheetPicture {
  readonly name: string;
  readonly paper: Paper;
  /** Of visible lines, mm. */
  readonly lineWidth: number;
  readonly marks: readonly Mark[];
  /** What is drawn in the warning tone, and why. */
  readonly faults: readonly { readonly of: string; readonly words: string }[];
}

/** Heights of letters, mm. Source: ISO 3098, from memory. */
export const LETTERS = { small: 2.5, usual: 3.5, large: 5 } as const;

/** Of an arrow, mm. */
const ARROW_LENGTH = 3;
const ARROW_HALF_WIDTH = 0.5;

/** The width of visible lines, mm. */
export const widthOf = ({ lines }: Pick<Sheet, 'lines'>): number => Number(lines);

/** A line through points, drawn as this stroke. */
export const stroke = (stroke: Stroke, ...points: readonly Vec2[]): Mark => ({
  kind: 'path',
  stroke,
  closed: false,
  curves: points.slice(1).map((to, i) => line(points[i]!, to)),
});

/** An arrow with its point at a place. @param bearing where it points to, degrees */
export function arrow([x, y]: Vec2, bearing: number): Mark {
  const [c, s] = [Math.cos(radians(bearing)), Math.sin(radians(bearing))];
  const corner = (back: number, side: number): Vec2 => [x - back * c - side * s, y - back * s + side * c];
  const loop = [
    [x, y] as Vec2,
    corner(ARROW_LENGTH, ARROW_HALF_WIDTH),
    corner(ARROW_LENGTH, -ARROW_HALF_WIDTH),
  ];
  return { kind: 'fill', shade: 'dark', loops: [loop] };
}

/** Room that an arrow takes, mm. */
export const ARROW_ROOM = ARROW_LENGTH;
