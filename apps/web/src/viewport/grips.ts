/**
 * The handles on the selection: arrows and squares that move, rings that turn, knobs on the box that resize.
 * Long, since each kind of grip has a form of its own.
 */
import { FollowingMarks } from './followingMarks.ts';
import {
  add,
  along,
  applyMatrix,
  boxPoint,
  column,
  cross,
  depthOf,
  isInPolygon,
  mmPerPixelAt,
  project,
  type Box,
  type BoxPoint,
  type Camera,
  type Turn,
  type Vec3,
} from '@kadrel/core';
import {
  AXIS_LETTERS,
  AXIS_ROLES,
  distanceToSegment,
  letter,
  make,
  placeLetter,
  show,
  type Ends,
} from './svg.ts';

/** What a grip does. */
export type Grip =
  | { readonly how: 'move'; readonly axes: readonly (0 | 1 | 2)[] }
  /** `screen` turns in the plane of the picture. */
  | { readonly how: 'turn'; readonly axis: 0 | 1 | 2 | 'screen' }
  | { readonly how: 'resize'; readonly side: BoxPoint }
  /** Pulls faces along their normal. */
  | { readonly how: 'offset-face' };

/** Which grips there are, where they stand in the world, and along which axes (columns). Faces are pulled along the first. */
export interface GripSet {
  readonly how: Grip['how'];
  readonly anchor: Vec3;
  readonly axes: Turn;
  /** For resizing: the box round the selection, given in the axes. */
  readonly box?: Box;
  /** For faces: how far the statement in hand moves them already, mm; the anchor stands there. */
  readonly pulledMm?: number;
}

/** Lengths on screen, pixels, at the usual size. */
const GRIP_LENGTH = 78;
const GRIP_START = 14;
const PLANE_NEAR = 22;
const PLANE_FAR = 40;
const RING = 72;
const SCREEN_RING = 92;
const KNOB = 5;
const REACH = 8;
/** An axis that points at the viewer shows less than this and cannot be pulled. */
const MIN_GRIP_PX = 16;
/** A ring seen flatter than this (cosine) is a line, and cannot be followed. */
const MIN_RING = 0.12;
const RING_STEPS = 64;

const PLANES: readonly (readonly [0 | 1 | 2, 0 | 1 | 2])[] = [
  [0, 1],
  [0, 2],
  [1, 2],
];
const SIDES: readonly BoxPoint[] = [
  [-1, 0, 0],
  [1, 0, 0],
  [0, -1, 0],
  [0, 1, 0],
  [0, 0, -1],
  [0, 0, 1],
];
const CORNERS: readonly BoxPoint[] = ([-1, 1] as const).flatMap((x) =>
  ([-1, 1] as const).flatMap((y) => ([-1, 1] as const).map((z): BoxPoint => [x, y, z])),
);
const KNOBS = [...SIDES, ...CORNERS];

type Pixel = readonly [number, number];

/** Handles on what is selected. */
export class Grips extends FollowingMarks {
  private readonly group: SVGGElement;
  private readonly planes: SVGPolygonElement[];
  private readonly shafts: SVGPathElement[];
  private readonly letters: SVGTextElement[];
  private readonly pull: SVGPathElement;
  /** Round it, so that it stands out from the face, which is tinted alike. */
  private readonly pullRim: SVGPathElement;
  private readonly rings: SVGPathElement[];
  private readonly knobs: SVGRectElement[];
  private readonly ticks: SVGPathElement;
  private readonly sweep: SVGTextElement;
  private set: GripSet | null = null;
  private active: Grip | null = null;
  private scale = 1;
  private protractor: { readonly step: number; readonly words: string } | null = null;

  constructor(svg: SVGSVGElement) {
    super();
    this.group = make('g', svg, { visibility: 'hidden' });
    this.planes = PLANES.map(([a, b]) =>
      make('polygon', this.group, {
        fill: `var(--${AXIS_ROLES[3 - a - b]!})`,
        'fill-opacity': '0.28',
        stroke: `var(--${AXIS_ROLES[3 - a - b]!})`,
      }),
    );
    this.ticks = make('path', this.group, { fill: 'none', stroke: 'var(--ink2)' });
    const stroke = { fill: 'none', 'stroke-width': '2.4', 'stroke-linecap': 'round' };
    this.shafts = AXIS_ROLES.map((role) => make('path', this.group, { ...stroke, stroke: `var(--${role})` }));
    this.pullRim = make('path', this.group, { ...stroke, stroke: 'var(--sheet)', 'stroke-width': '7' });
    this.pull = make('path', this.group, { ...stroke, stroke: 'var(--plum)', 'stroke-width': '3' });
    this.rings = [...AXIS_ROLES.map((role) => `var(--${role})`), 'var(--ink3)'].map((colour, i) =>
      make('path', this.group, {
        ...stroke,
        stroke: colour,
        ...(i === 3 ? { 'stroke-dasharray': '2 5', 'stroke-width': '2' } : {}),
      }),
    );
    this.letters = AXIS_ROLES.map((role, i) => letter(this.group, `var(--${role})`, AXIS_LETTERS[i]!));
    this.knobs = KNOBS.map((side) => {
      const axis = side.findIndex((n) => n !== 0);
      const isSide = side.filter((n) => n !== 0).length === 1;
      return make('rect', this.group, {
        fill: isSide ? `var(--${AXIS_ROLES[axis]!})` : 'var(--sheet)',
        stroke: isSide ? 'var(--sheet)' : 'var(--plum)',
        'stroke-width': '1.6',
        rx: isSide ? '1.5' : '5',
      });
    });
    this.sweep = letter(this.group, 'var(--plum)', '');
  }

  /** @param active the grip that is held; the others are out of sight meanwhile */
  show(set: GripSet | null, scale: number, active: Grip | null = null): void {
    this.set = set;
    this.active = active;
    this.scale = scale;
    if (!active) this.protractor = null;
    this.redraw();
  }

  /** Ticks on the ring that is held, every `step` degrees, and how far it has been turned. */
  showAngle(step: number, words: string): void {
    this.protractor = { step, words };
  }

  protected draw(camera: Camera): void {
    this.group.setAttribute('visibility', this.set ? 'visible' : 'hidden');
    if (!this.set) return;
    this.drawMoving(camera, this.set);
    this.drawTurning(camera, this.set);
    this.drawKnobs(camera, this.set);
    this.drawPull(camera, this.set);
  }

  /** The grip under a pixel. */
  at(x: number, y: number): Grip | null {
    const { set, camera } = this;
    if (!set || !camera) return null;
    if (set.how === 'move') return this.moveGripAt(camera, set, x, y);
    if (set.how === 'turn') return this.turnGripAt(camera, set, x, y);
    if (set.how === 'offset-face') return this.pullAt(camera, set, x, y);
    const reach = (KNOB + 5) * this.scale;
    let best: { side: BoxPoint; depth: number } | null = null;
    for (const side of KNOBS) {
      const [px, py, depth] = project(camera, knobPoint(set, side));
      if (Math.hypot(px - x, py - y) <= reach && (!best || depth < best.depth)) best = { side, depth };
    }
    return best && { how: 'resize', side: best.side };
  }

  private moveGripAt(camera: Camera, set: GripSet, x: number, y: number): Grip | null {
    for (const axes of PLANES) {
      const corners = this.planeCorners(camera, set, axes);
      if (corners && isInPolygon([x, y], corners)) return { how: 'move', axes };
    }
    for (const axis of [2, 0, 1] as const) {
      const ends = this.shaft(camera, set, axis);
      if (ends && distanceToSegment(x, y, ends) <= REACH) return { how: 'move', axes: [axis] };
    }
    return null;
  }

  private turnGripAt(camera: Camera, set: GripSet, x: number, y: number): Grip | null {
    let best: { axis: 0 | 1 | 2 | 'screen'; off: number } | null = null;
    for (const axis of [0, 1, 2, 'screen'] as const) {
      const ring = this.ring(camera, set, axis);
      if (!ring) continue;
      ring.forEach(([ax, ay], i) => {
        const [bx, by] = ring[(i + 1) % ring.length]!;
        const off = distanceToSegment(x, y, [ax, ay, bx, by]);
        if (off <= REACH && (!best || off < best.off)) best = { axis, off };
      });
    }
    const found = best as { axis: 0 | 1 | 2 | 'screen' } | null;
    return found && { how: 'turn', axis: found.axis };
  }

  private pullAt(camera: Camera, set: GripSet, x: number, y: number): Grip | null {
    const ends = this.shaft(camera, set, 0);
    return ends && distanceToSegment(x, y, ends) <= REACH ? { how: 'offset-face' } : null;
  }

  private drawPull(camera: Camera, set: GripSet): void {
    const isPulling = set.how === 'offset-face';
    const ends = isPulling ? this.shaft(camera, set, 0) : null;
    for (const one of [this.pullRim, this.pull]) {
      show(one, { isShown: ends !== null });
      if (ends) one.setAttribute('d', arrow(ends));
    }
    if (isPulling) for (const one of this.letters) show(one, { isShown: false });
  }

  private isActive(grip: Grip): boolean {
    return !this.active || JSON.stringify(this.active) === JSON.stringify(grip);
  }

  private drawMoving(camera: Camera, set: GripSet): void {
    const isMoving = set.how === 'move';
    ([0, 1, 2] as const).forEach((axis) => {
      const ends = isMoving ? this.shaft(camera, set, axis) : null;
      const isShown = ends !== null && this.isActive({ how: 'move', axes: [axis] });
      show(this.shafts[axis]!, { isShown });
      if (isMoving) show(this.letters[axis]!, { isShown });
      if (!ends) return;
      this.shafts[axis]!.setAttribute('d', arrow(ends));
      placeLetter(this.letters[axis]!, ends);
    });
    PLANES.forEach((axes, i) => {
      const corners = isMoving ? this.planeCorners(camera, set, axes) : null;
      show(this.planes[i]!, { isShown: corners !== null && this.isActive({ how: 'move', axes }) });
      if (corners) this.planes[i]!.setAttribute('points', corners.map(([x, y]) => `${x},${y}`).join(' '));
    });
  }

  private drawTurning(camera: Camera, set: GripSet): void {
    const isTurning = set.how === 'turn';
    const [cx, cy] = project(camera, set.anchor);
    ([0, 1, 2, 'screen'] as const).forEach((axis, i) => {
      const ring = isTurning ? this.ring(camera, set, axis) : null;
      const isShown = ring !== null && this.isActive({ how: 'turn', axis });
      show(this.rings[i]!, { isShown });
      if (axis !== 'screen' && isTurning) show(this.letters[axis]!, { isShown });
      if (!ring) return;
      this.rings[i]!.setAttribute('d', `M${ring.map(([x, y]) => `${x} ${y}`).join('L')}Z`);
      // Letters of the three rings stand on different sides, so that they do not lie on one another.
      if (axis !== 'screen') {
        const [x, y] = ring[[10, 26, 58][axis]!]!;
        placeLetter(this.letters[axis]!, [cx, cy, x, y]);
      }
    });
    const held = this.active?.how === 'turn' ? this.active : null;
    show(this.ticks, { isShown: held !== null });
    show(this.sweep, { isShown: held !== null && this.protractor !== null });
    if (!held || !this.protractor) return;
    this.ticks.setAttribute('d', this.tickPath(camera, set, held.axis, this.protractor.step));
    this.sweep.textContent = this.protractor.words;
    this.sweep.setAttribute('x', String(cx));
    this.sweep.setAttribute('y', String(cy - 10));
  }

  private tickPath(camera: Camera, set: GripSet, axis: 0 | 1 | 2 | 'screen', step: number): string {
    const count = Math.min(120, Math.round(360 / step));
    const inner = this.ringPoints(camera, set, axis, { count });
    const outer = this.ringPoints(camera, set, axis, { grow: 1.1, count });
    return inner.map(([x, y], i) => `M${x} ${y}L${outer[i]![0]} ${outer[i]![1]}`).join('');
  }

  private drawKnobs(camera: Camera, set: GripSet): void {
    KNOBS.forEach((side, i) => {
      const knob = this.knobs[i]!;
      const isShown = set.how === 'resize' && set.box !== undefined && this.isActive({ how: 'resize', side });
      show(knob, { isShown });
      if (!isShown) return;
      const [x, y] = project(camera, knobPoint(set, side));
      const size = KNOB * this.scale * 2;
      knob.setAttribute('width', String(size));
      knob.setAttribute('height', String(size));
      knob.setAttribute('x', String(x - size / 2));
      knob.setAttribute('y', String(y - size / 2));
    });
    if (set.how === 'resize')
      ([0, 1, 2] as const).forEach((axis) => {
        const side = SIDES[2 * axis + 1]!;
        show(this.letters[axis]!, { isShown: this.isActive({ how: 'resize', side }) });
        const [ax, ay] = project(camera, knobPoint(set, [0, 0, 0]));
        const [bx, by] = project(camera, knobPoint(set, side));
        placeLetter(this.letters[axis]!, [ax, ay, bx, by]);
      });
  }

  private shaft(camera: Camera, { anchor, axes }: GripSet, axis: 0 | 1 | 2): Ends | null {
    const size = mmPerPixelAt(camera, depthOf(camera, anchor)) * this.scale;
    const direction = column(axes, axis);
    const from = project(camera, along(anchor, direction, GRIP_START * size));
    const to = project(camera, along(anchor, direction, GRIP_LENGTH * size));
    return Math.hypot(to[0] - from[0], to[1] - from[1]) < MIN_GRIP_PX
      ? null
      : [from[0], from[1], to[0], to[1]];
  }

  private planeCorners(
    camera: Camera,
    { anchor, axes }: GripSet,
    [a, b]: readonly [0 | 1 | 2, 0 | 1 | 2],
  ): Pixel[] | null {
    const size = mmPerPixelAt(camera, depthOf(camera, anchor)) * this.scale;
    const corner = (u: number, v: number): Pixel => {
      const point = add(
        along(anchor, column(axes, a), u * size),
        along([0, 0, 0], column(axes, b), v * size),
      );
      const [x, y] = project(camera, point);
      return [x, y];
    };
    const corners = [
      corner(PLANE_NEAR, PLANE_NEAR),
      corner(PLANE_FAR, PLANE_NEAR),
      corner(PLANE_FAR, PLANE_FAR),
      corner(PLANE_NEAR, PLANE_FAR),
    ];
    const [p, q, , s] = corners;
    const area = Math.abs((q![0] - p![0]) * (s![1] - p![1]) - (q![1] - p![1]) * (s![0] - p![0]));
    // A plane seen edge-on offers nothing to hold.
    return area < 40 ? null : corners;
  }

  private ring(camera: Camera, set: GripSet, axis: 0 | 1 | 2 | 'screen'): Pixel[] | null {
    const normal = turnAxis(set, axis, camera);
    const facing = Math.abs(
      normal[0] * camera.toward[0] + normal[1] * camera.toward[1] + normal[2] * camera.toward[2],
    );
    return facing < MIN_RING ? null : this.ringPoints(camera, set, axis, { count: RING_STEPS });
  }

  private ringPoints(
    camera: Camera,
    set: GripSet,
    axis: 0 | 1 | 2 | 'screen',
    { grow = 1, count }: { readonly grow?: number; readonly count: number },
  ): Pixel[] {
    const size = mmPerPixelAt(camera, depthOf(camera, set.anchor)) * this.scale * grow;
    const radius = (axis === 'screen' ? SCREEN_RING : RING) * size;
    const normal = turnAxis(set, axis, camera);
    const u = axis === 'screen' ? camera.right : column(set.axes, (axis + 1) % 3);
    const v = cross(normal, u);
    return Array.from({ length: count }, (_, i) => {
      const angle = (2 * Math.PI * i) / count;
      const [c, s] = [Math.cos(angle) * radius, Math.sin(angle) * radius];
      const point = add(along(set.anchor, u, c), along([0, 0, 0], v, s));
      const [x, y] = project(camera, point);
      return [x, y] as const;
    });
  }
}

/** The axis of a ring in the world. */
export const turnAxis = ({ axes }: GripSet, axis: 0 | 1 | 2 | 'screen', camera: Camera): Vec3 =>
  axis === 'screen' ? camera.toward : column(axes, axis);

/** A point of the box round the selection, in the world. */
export const knobPoint = ({ axes, box }: GripSet, side: BoxPoint): Vec3 =>
  applyMatrix(axes, boxPoint(box!, side));

function arrow([ax, ay, bx, by]: Ends): string {
  const size = Math.hypot(bx - ax, by - ay);
  const [ux, uy] = [(bx - ax) / size, (by - ay) / size];
  const wing = (side: number) => `${bx - 9 * ux - side * 4.5 * uy} ${by - 9 * uy + side * 4.5 * ux}`;
  return `M${ax} ${ay}L${bx} ${by}M${wing(1)}L${bx} ${by}L${wing(-1)}`;
}
