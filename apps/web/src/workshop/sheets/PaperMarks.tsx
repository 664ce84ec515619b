/** What stands on the paper, drawn once for each picture, and what is caught. */
import { boxOfCurves, type Mark, type SheetPicture, type Vec2 } from '@kadrel/core';
import { marksAsSvg } from '@kadrel/kernel';
import clsx from 'clsx';
import { useMemo } from 'react';
import type { Caught } from '../../session/onSheet.ts';

interface PaperMarksProps {
  readonly picture: SheetPicture;
  readonly selected: string | null;
}

export function PaperMarks({ picture, selected }: PaperMarksProps) {
  const groups = useMemo(() => grouped(picture), [picture]);
  return groups.map(({ of, text, box }) => (
    <g key={of} {...(of === '' ? {} : { 'data-entry': of })}>
      {box && (
        <rect
          {...box}
          className={clsx('fill-transparent', of === selected ? 'stroke-plum' : 'stroke-none')}
          strokeWidth={0.4}
          strokeDasharray="2 1"
        />
      )}
      <g dangerouslySetInnerHTML={{ __html: text }} />
    </g>
  ));
}

interface Group {
  /** '' is what is round all views. */
  readonly of: string;
  readonly text: string;
  /** Round what can be taken hold of, Y down. */
  readonly box: {
    readonly x: number;
    readonly y: number;
    readonly width: number;
    readonly height: number;
  } | null;
}

function grouped(picture: SheetPicture): Group[] {
  const byEntry = new Map<string, Mark[]>();
  for (const mark of picture.marks) {
    const of = mark.of ?? '';
    const known = byEntry.get(of);
    if (known) known.push(mark);
    else byEntry.set(of, [mark]);
  }
  return [...byEntry].map(([of, marks]) => ({
    of,
    text: marksAsSvg({ ...picture, marks }, 'Archivo Variable'),
    box: of === '' ? null : boxRound(marks, picture.paper.height),
  }));
}

/** Room round it, mm. */
const RIM = 2;

function boxRound(marks: readonly Mark[], height: number): Group['box'] {
  const points = marks.flatMap(extentOf);
  if (points.length === 0) return null;
  const reach = (axis: 0 | 1, pick: (a: number, b: number) => number) =>
    points.map((at) => at[axis]).reduce((a, b) => pick(a, b));
  const [low, high] = [Math.min, Math.max].map((pick) => [reach(0, pick), reach(1, pick)] as const) as [
    Vec2,
    Vec2,
  ];
  return {
    x: low[0] - RIM,
    y: height - high[1] - RIM,
    width: high[0] - low[0] + 2 * RIM,
    height: high[1] - low[1] + 2 * RIM,
  };
}

/** Two corners of what a mark takes up. */
function extentOf(mark: Mark): Vec2[] {
  if (mark.kind === 'fill') return mark.loops.flat();
  if (mark.kind === 'text') return [mark.at, [mark.at[0], mark.at[1] + mark.height]];
  const box = boxOfCurves(mark.curves);
  return box ? [box.min, box.max] : [];
}

/** A ring with a word for what is caught; put in its place by `showCatch`. */
export const CatchMark = () => (
  <g className="pointer-events-none" display="none" data-catch>
    <circle r={5} className="fill-none stroke-plum" strokeWidth={2} />
    <text x={9} y={-7} fontSize={12} className="fill-plum font-semibold" />
  </g>
);

/** Shows what is caught, or nothing. @param pixelsPerMm so that its size on the screen stays */
export function showCatch(sheet: SVGSVGElement, caught: Caught | null, pixelsPerMm: number): void {
  const mark = sheet.querySelector('[data-catch]')!;
  mark.setAttribute('display', caught ? 'inline' : 'none');
  if (!caught) return;
  const { snap, radius } = caught.caught;
  const y = sheet.viewBox.baseVal.height - caught.at[1];
  mark.setAttribute('transform', `translate(${caught.at[0]} ${y}) scale(${1 / pixelsPerMm})`);
  mark.querySelector('text')!.textContent = radius !== undefined && snap === 'edge' ? 'round edge' : snap;
}

/** A view or a note that is dragged is shifted as it is; null puts it back. */
export function showShift(sheet: SVGSVGElement, entry: string, by: Vec2 | null): void {
  const group = sheet.querySelector(`[data-entry="${entry}"]`);
  if (by) group?.setAttribute('transform', `translate(${by[0]} ${-by[1]})`);
  else group?.removeAttribute('transform');
}
