/** The axes in the corner of a view. */
import { NO_TURN, column, dot, type Camera, type Turn, type Vec3 } from '@kadrel/core';
import { FollowingMarks } from './followingMarks.ts';
import { AXIS_LETTERS, AXIS_ROLES, letter, make, placeLetter, setLine } from './svg.ts';

/** From the right and the lower rim of the view, px. */
const FROM_RIGHT = 44;
const FROM_BELOW = 46;
/** How long an axis across the view is, px. */
const LENGTH = 26;
/** An axis seen shorter than this (px) goes without its letter. */
const MIN_LETTERED = 4;

/** Three lines with their letters. */
export class Tripod extends FollowingMarks {
  private readonly lines: SVGLineElement[];
  private readonly letters: SVGTextElement[];
  private axes: Turn = NO_TURN;

  constructor(svg: SVGSVGElement) {
    super();
    const group = make('g', svg);
    this.lines = AXIS_ROLES.map((role) =>
      make('line', group, { stroke: `var(--${role})`, 'stroke-width': '2' }),
    );
    this.letters = AXIS_ROLES.map((role, i) => letter(group, `var(--${role})`, AXIS_LETTERS[i]!));
  }

  /** Which axes it shows. */
  show(axes: Turn): void {
    this.axes = axes;
    this.redraw();
  }

  protected draw(camera: Camera): void {
    const [cx, cy] = [camera.width - FROM_RIGHT, camera.pixelHeight - FROM_BELOW];
    ([0, 1, 2] as const).forEach((axis) => {
      const direction = column(this.axes, axis);
      const [dx, dy] = [dot(camera.right, direction) * LENGTH, -dot(camera.up, direction) * LENGTH];
      const end: Vec3 = [cx + dx, cy + dy, 0];
      setLine(this.lines[axis]!, [cx, cy, 0], end);
      const isHidden = Math.hypot(dx, dy) < MIN_LETTERED;
      this.letters[axis]!.setAttribute('visibility', isHidden ? 'hidden' : 'visible');
      placeLetter(this.letters[axis]!, [cx, cy, end[0], end[1]]);
    });
  }
}
