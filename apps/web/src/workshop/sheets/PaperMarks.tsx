/** What stands on the paper, drawn once for each picture, and what is caught. */
import { boxOfCurves, type Mark, type SheetPicture, type Vec2 } from '@kadrel/core';
import { marksAsSvg } from '@kadrel/kernel';
import clsx from 'clsx';
import { useMemo } from 'react';
import type { Caught } from '../../session/onSheet.ts';
import type { Drag } from './usePaperHand.ts';

interface PaperMarksProps {
  readonly picture: SheetPicture;
  readonly selected: string | null;
  readonly drag: Drag | null;
}

/** A view or a note that is dragged is shifted as it is. */
export function PaperMarks({ picture, selected, drag }: PaperMarksProps) {
  const groups = useMemo(() => grouped(picture), [picture]);
  return groups.map(({ of, text, box }) => (
    <g
      key={of}
      {...(of === '' ? {} : { 'data-entry': of })}
      transform={
        drag && of !== '' && drag.entry === of ? `translate(${drag.by[0]} ${-drag.by[1]})` : undefined
      }
    >
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

/** A ring round a point, with the word for it. */
export function CatchMark({
  caught: { at, caught },
  height,
  pixel,
}: {
  caught: Caught;
  height: number;
  pixel: number;
}) {
  const [x, y] = [at[0], height - at[1]];
  const words = caught.radius !== undefined && caught.snap === 'edge' ? 'round edge' : caught.snap;
  return (
    <g className="pointer-events-none">
      <circle cx={x} cy={y} r={5 * pixel} className="fill-none stroke-plum" strokeWidth={2 * pixel} />
      <text x={x + 9 * pixel} y={y - 7 * pixel} fontSize={12 * pixel} className="fill-plum font-semibold">
        {words}
      </text>
    </g>
  );
}
