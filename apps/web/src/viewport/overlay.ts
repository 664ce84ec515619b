/** What stands over the picture: grips, reticle with its words, selection rectangle, tripod. Moved by hand, never by React. */
import { add, along, depthOf, mmPerPixelAt, project, type Camera, type Snap, type Vec3 } from '@kadrel/core';

const SVG = 'http://www.w3.org/2000/svg';
const AXIS_LETTERS = ['X', 'Y', 'Z'] as const;
const AXIS_ROLES = ['x', 'y', 'z'] as const;
/** Lengths on screen, pixels. */
const GRIP_LENGTH = 78;
const GRIP_START = 14;
const PLANE_NEAR = 22;
const PLANE_FAR = 40;
const GRIP_REACH = 8;
/** An axis that points at the viewer shows less than this and cannot be pulled. */
const LEAST_GRIP_PX = 16;

/** What a grip moves along. */
export interface Grip {
  readonly axes: readonly (0 | 1 | 2)[];
}

function make<K extends keyof SVGElementTagNameMap>(
  tag: K,
  parent: Element,
  attributes: Readonly<Record<string, string>> = {},
): SVGElementTagNameMap[K] {
  const element = document.createElementNS(SVG, tag);
  for (const [name, value] of Object.entries(attributes)) element.setAttribute(name, value);
  parent.append(element);
  return element;
}

const AXES: readonly Vec3[] = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
];
const PLANES: readonly (readonly [0 | 1 | 2, 0 | 1 | 2])[] = [
  [0, 1],
  [0, 2],
  [1, 2],
];

export class Overlay {
  private readonly svg: SVGSVGElement;
  private readonly gripGroup: SVGGElement;
  private readonly planes: SVGPolygonElement[];
  private readonly shafts: SVGPathElement[];
  private readonly letters: SVGTextElement[];
  private readonly reticle: SVGGElement;
  private readonly rubber: SVGLineElement;
  private readonly rectangle: SVGRectElement;
  private readonly tripod: SVGGElement;
  private readonly tripodLines: SVGLineElement[];
  private readonly tripodLetters: SVGTextElement[];
  private readonly label: HTMLDivElement;
  private anchor: Vec3 | null = null;
  private active: Grip | null = null;
  private camera: Camera | null = null;

  constructor(host: HTMLElement) {
    this.svg = document.createElementNS(SVG, 'svg');
    this.svg.setAttribute('class', 'pointer-events-none absolute inset-0 h-full w-full');
    this.svg.setAttribute('aria-hidden', 'true');
    host.append(this.svg);
    this.rubber = make('line', this.svg, {
      stroke: 'var(--plum)',
      'stroke-dasharray': '4 3',
      'stroke-width': '1.4',
      visibility: 'hidden',
    });
    this.gripGroup = make('g', this.svg, { visibility: 'hidden' });
    this.planes = PLANES.map(([a, b]) =>
      make('polygon', this.gripGroup, {
        fill: `var(--${AXIS_ROLES[3 - a - b]!})`,
        'fill-opacity': '0.28',
        stroke: `var(--${AXIS_ROLES[3 - a - b]!})`,
      }),
    );
    this.shafts = AXIS_ROLES.map((role) =>
      make('path', this.gripGroup, {
        fill: 'none',
        stroke: `var(--${role})`,
        'stroke-width': '2.4',
        'stroke-linecap': 'round',
      }),
    );
    this.letters = AXIS_ROLES.map((role, i) => letter(this.gripGroup, role, AXIS_LETTERS[i]!));
    this.rectangle = make('rect', this.svg, {
      fill: 'var(--plum)',
      'fill-opacity': '0.1',
      stroke: 'var(--plum)',
      visibility: 'hidden',
    });
    this.reticle = make('g', this.svg, {
      visibility: 'hidden',
      stroke: 'var(--plum)',
      fill: 'none',
      'stroke-width': '1.8',
    });
    make('circle', this.reticle, { r: '7' });
    make('path', this.reticle, { d: 'M0 -12v6M0 6v6M-12 0h6M6 0h6' });
    this.tripod = make('g', this.svg);
    this.tripodLines = AXIS_ROLES.map((role) =>
      make('line', this.tripod, { stroke: `var(--${role})`, 'stroke-width': '2' }),
    );
    this.tripodLetters = AXIS_ROLES.map((role, i) => letter(this.tripod, role, AXIS_LETTERS[i]!));
    this.label = document.createElement('div');
    this.label.className = 'pointer-events-none absolute z-10 hidden rounded bg-ink px-2.5 py-1 text-paper';
    this.label.dataset.testid = 'snap-label';
    host.append(this.label);
  }

  /** Redraws everything that follows the camera. */
  update(camera: Camera): void {
    this.camera = camera;
    this.drawGrips(camera);
    this.drawTripod(camera);
  }

  /** Grips at a world point, or none. */
  setGrips(anchor: Vec3 | null, active: Grip | null = null): void {
    this.anchor = anchor;
    this.active = active;
    if (this.camera) this.drawGrips(this.camera);
  }

  /** The grip under a pixel. */
  gripAt(x: number, y: number): Grip | null {
    const { anchor, camera } = this;
    if (!anchor || !camera) return null;
    for (const axes of PLANES) {
      const corners = planeCorners(camera, anchor, axes);
      if (corners && isInPolygon(x, y, corners)) return { axes };
    }
    for (const axis of [2, 0, 1] as const) {
      const ends = shaft(camera, anchor, axis);
      if (ends && distanceToSegment(x, y, ends) <= GRIP_REACH) return { axes: [axis] };
    }
    return null;
  }

  /** Shows what is caught: the reticle, the kind and the part in words, and the coordinates. */
  showSnap(snap: Pick<Snap, 'point'> | null, title = '', detail = '', numbers = ''): void {
    const camera = this.camera;
    const hidden = !snap || !camera;
    this.reticle.setAttribute('visibility', hidden ? 'hidden' : 'visible');
    this.label.classList.toggle('hidden', hidden);
    if (hidden) return;
    const [x, y] = project(camera, snap.point);
    this.reticle.setAttribute('transform', `translate(${x} ${y})`);
    this.label.replaceChildren(line('', [strong(title), ` ${detail}`]), line('num opacity-80', [numbers]));
    const left = x + 240 > camera.width ? x - 14 - this.label.offsetWidth : x + 14;
    this.label.style.transform = `translate(${Math.round(Math.max(4, left))}px, ${Math.round(Math.min(camera.pixelHeight - 48, Math.max(4, y - 44)))}px)`;
  }

  showRubber(from: Vec3 | null, to: Vec3 | null): void {
    const shown = from && to && this.camera;
    this.rubber.setAttribute('visibility', shown ? 'visible' : 'hidden');
    if (!shown) return;
    const [a, b] = [project(this.camera!, from), project(this.camera!, to)];
    setLine(this.rubber, a, b);
  }

  showRectangle(
    rectangle: { left: number; top: number; right: number; bottom: number } | null,
    dashed = false,
  ): void {
    this.rectangle.setAttribute('visibility', rectangle ? 'visible' : 'hidden');
    if (!rectangle) return;
    const { left, top, right, bottom } = rectangle;
    for (const [name, value] of Object.entries({
      x: left,
      y: top,
      width: right - left,
      height: bottom - top,
    }))
      this.rectangle.setAttribute(name, String(value));
    this.rectangle.setAttribute('stroke-dasharray', dashed ? '5 3' : 'none');
  }

  dispose(): void {
    this.svg.remove();
    this.label.remove();
  }

  private drawGrips(camera: Camera): void {
    this.gripGroup.setAttribute('visibility', this.anchor ? 'visible' : 'hidden');
    if (!this.anchor) return;
    const anchor = this.anchor;
    const isActive = (axes: readonly number[]) =>
      !this.active ||
      (this.active.axes.length === axes.length &&
        axes.every((axis) => this.active!.axes.includes(axis as 0)));
    ([0, 1, 2] as const).forEach((axis) => {
      const ends = shaft(camera, anchor, axis);
      const shown = ends && isActive([axis]);
      this.shafts[axis]!.setAttribute('visibility', shown ? 'inherit' : 'hidden');
      this.letters[axis]!.setAttribute('visibility', shown ? 'inherit' : 'hidden');
      if (!ends) return;
      this.shafts[axis]!.setAttribute('d', arrow(ends));
      placeLetter(this.letters[axis]!, ends);
    });
    PLANES.forEach((axes, i) => {
      const corners = planeCorners(camera, anchor, axes);
      this.planes[i]!.setAttribute('visibility', corners && isActive(axes) ? 'inherit' : 'hidden');
      if (corners) this.planes[i]!.setAttribute('points', corners.map(([x, y]) => `${x},${y}`).join(' '));
    });
  }

  private drawTripod(camera: Camera): void {
    const [cx, cy] = [camera.width - 44, camera.pixelHeight - 46];
    ([0, 1, 2] as const).forEach((axis) => {
      const direction = AXES[axis]!;
      const dot3 = (v: Vec3) => v[0] * direction[0] + v[1] * direction[1] + v[2] * direction[2];
      const [dx, dy] = [dot3(camera.right) * 26, -dot3(camera.up) * 26];
      const end: Vec3 = [cx + dx, cy + dy, 0];
      setLine(this.tripodLines[axis]!, [cx, cy, 0], end);
      const hidden = Math.hypot(dx, dy) < 4;
      this.tripodLetters[axis]!.setAttribute('visibility', hidden ? 'hidden' : 'visible');
      placeLetter(this.tripodLetters[axis]!, [cx, cy, end[0], end[1]]);
    });
  }
}

type Ends = readonly [ax: number, ay: number, bx: number, by: number];

function shaft(camera: Camera, anchor: Vec3, axis: 0 | 1 | 2): Ends | null {
  const size = mmPerPixelAt(camera, depthOf(camera, anchor));
  const from = project(camera, along(anchor, AXES[axis]!, GRIP_START * size));
  const to = project(camera, along(anchor, AXES[axis]!, GRIP_LENGTH * size));
  return Math.hypot(to[0] - from[0], to[1] - from[1]) < LEAST_GRIP_PX
    ? null
    : [from[0], from[1], to[0], to[1]];
}

function planeCorners(
  camera: Camera,
  anchor: Vec3,
  [a, b]: readonly [0 | 1 | 2, 0 | 1 | 2],
): (readonly [number, number])[] | null {
  const size = mmPerPixelAt(camera, depthOf(camera, anchor));
  const corner = (u: number, v: number) => {
    const [x, y] = project(
      camera,
      add(along(anchor, AXES[a]!, u * size), along([0, 0, 0], AXES[b]!, v * size)),
    );
    return [x, y] as const;
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

function arrow([ax, ay, bx, by]: Ends): string {
  const size = Math.hypot(bx - ax, by - ay);
  const [ux, uy] = [(bx - ax) / size, (by - ay) / size];
  const wing = (side: number) => `${bx - 9 * ux - side * 4.5 * uy} ${by - 9 * uy + side * 4.5 * ux}`;
  return `M${ax} ${ay}L${bx} ${by}M${wing(1)}L${bx} ${by}L${wing(-1)}`;
}

function letter(parent: Element, role: string, text: string): SVGTextElement {
  const made = make('text', parent, {
    fill: `var(--${role})`,
    stroke: 'var(--ground)',
    'stroke-width': '3',
    'paint-order': 'stroke',
    'font-weight': '700',
    'font-size': '12',
    'text-anchor': 'middle',
  });
  made.textContent = text;
  return made;
}

function placeLetter(text: SVGTextElement, [ax, ay, bx, by]: Ends): void {
  const size = Math.hypot(bx - ax, by - ay) || 1;
  text.setAttribute('x', String(bx + ((bx - ax) / size) * 11));
  text.setAttribute('y', String(by + ((by - ay) / size) * 11 + 4));
}

function setLine(element: SVGLineElement, [x1, y1]: Vec3, [x2, y2]: Vec3): void {
  for (const [name, value] of Object.entries({ x1, y1, x2, y2 })) element.setAttribute(name, String(value));
}

function line(className: string, content: (string | Node)[]): HTMLDivElement {
  const element = document.createElement('div');
  element.className = className;
  element.append(...content);
  return element;
}

function strong(text: string): HTMLElement {
  const element = document.createElement('strong');
  element.textContent = text;
  return element;
}

function distanceToSegment(x: number, y: number, [ax, ay, bx, by]: Ends): number {
  const [dx, dy] = [bx - ax, by - ay];
  const t = Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy)));
  return Math.hypot(x - ax - t * dx, y - ay - t * dy);
}

function isInPolygon(x: number, y: number, corners: readonly (readonly [number, number])[]): boolean {
  let inside = false;
  corners.forEach(([ax, ay], i) => {
    const [bx, by] = corners[(i + corners.length - 1) % corners.length]!;
    if (ay > y !== by > y && x < ((bx - ax) * (y - ay)) / (by - ay) + ax) inside = !inside;
  });
  return inside;
}
