/** What stands over a view: grips, pins, reticle with its words, guides, the region of a selection, tripod. Moved by hand, never by React. */
import {
  column,
  exactStyle,
  formatLengthWithUnit,
  project,
  NO_TURN,
  type Camera,
  type Scene,
  type Snap,
  type Turn,
  type Vec3,
} from '@kadrel/core';
import { Grips, type Grip, type GripSet } from './grips.ts';
import { GuideMarks } from './guideMarks.ts';
import { HandleMarks, type HandleSet } from './handles.ts';
import { RegionMark } from './regionMark.ts';
import { AXIS_LETTERS, AXIS_ROLES, letter, make, makeSvg, placeLetter, setLine, show } from './svg.ts';

/** A distance to show between two points, mm. */
export interface ShownMeasure {
  readonly from: Vec3;
  readonly to: Vec3;
  readonly distance: number;
  readonly scene: Scene;
}

interface ShownPin {
  readonly name: string;
  readonly at: Vec3;
}

export class Overlay {
  readonly grips: Grips;
  readonly guides: GuideMarks;
  readonly region: RegionMark;
  private readonly svg: SVGSVGElement;
  private readonly pinGroup: SVGGElement;
  private readonly handles: HandleMarks;
  private readonly reticle: SVGGElement;
  private readonly rubber: SVGLineElement;
  private readonly measure: SVGGElement;
  private readonly measureLine: SVGLineElement;
  private readonly measureText: SVGTextElement;
  private readonly tripod: SVGGElement;
  private readonly tripodLines: SVGLineElement[];
  private readonly tripodLetters: SVGTextElement[];
  private readonly label: HTMLDivElement;
  private pins: readonly ShownPin[] = [];
  private shown: ShownMeasure | null = null;
  private axes: Turn = NO_TURN;
  private camera: Camera | null = null;

  constructor(host: HTMLElement) {
    this.svg = makeSvg(host);
    this.pinGroup = make('g', this.svg);
    this.handles = new HandleMarks(this.svg);
    this.rubber = make('line', this.svg, {
      stroke: 'var(--plum)',
      'stroke-dasharray': '4 3',
      'stroke-width': '1.4',
      visibility: 'hidden',
    });
    this.measure = make('g', this.svg, { visibility: 'hidden' });
    this.measureLine = make('line', this.measure, { stroke: 'var(--plum)', 'stroke-width': '1.6' });
    this.measureText = letter(this.measure, 'var(--plum)', '');
    this.grips = new Grips(this.svg);
    this.guides = new GuideMarks(this.svg);
    this.region = new RegionMark(this.svg);
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
    this.tripodLetters = AXIS_ROLES.map((role, i) => letter(this.tripod, `var(--${role})`, AXIS_LETTERS[i]!));
    this.label = document.createElement('div');
    this.label.className = 'pointer-events-none absolute z-10 hidden rounded bg-ink px-2.5 py-1 text-paper';
    host.append(this.label);
  }

  /** Redraws everything that follows the camera. */
  update(camera: Camera): void {
    this.camera = camera;
    this.grips.draw(camera);
    this.guides.update(camera);
    this.drawTripod(camera);
    this.drawPins(camera);
    this.handles.draw(camera);
    this.drawMeasure(camera);
  }

  /** Grips, or none; while one is held the others are out of sight. */
  setGrips(set: GripSet | null, scale: number, active: Grip | null = null): void {
    this.grips.show(set, active, scale);
    if (this.camera) this.grips.draw(this.camera);
  }

  /** The axes that the tripod shows. */
  setFrame(axes: Turn): void {
    this.axes = axes;
    if (this.camera) this.drawTripod(this.camera);
  }

  setPins(pins: readonly ShownPin[]): void {
    this.pins = pins;
    this.pinGroup.replaceChildren();
    for (const { name } of pins) {
      const group = make('g', this.pinGroup);
      make('path', group, {
        d: 'M0 0L-4 -11A4.6 4.6 0 1 1 4 -11Z',
        fill: 'var(--ink)',
        stroke: 'var(--ground)',
        'stroke-width': '1',
      });
      const text = letter(group, 'var(--ink)', name);
      text.setAttribute('text-anchor', 'start');
      text.setAttribute('x', '8');
      text.setAttribute('y', '-9');
    }
    if (this.camera) this.drawPins(this.camera);
  }

  /** The points of a profile that can be dragged. */
  setHandles(set: HandleSet | null): void {
    this.handles.show(set);
    if (this.camera) this.handles.draw(this.camera);
  }

  /** Which of them is under the pointer; −1 for none. */
  handleAt(x: number, y: number): number {
    return this.camera ? this.handles.at(this.camera, x, y) : -1;
  }

  showMeasure(measure: ShownMeasure | null): void {
    this.shown = measure;
    if (this.camera) this.drawMeasure(this.camera);
  }

  gripAt(x: number, y: number): Grip | null {
    return this.camera && this.grips.at(this.camera, x, y);
  }

  /** Shows what is caught: the reticle, the kind and the part in words, and the coordinates. */
  showSnap(snap: Pick<Snap, 'point'> | null, title = '', detail = '', numbers = ''): void {
    const camera = this.camera;
    const hidden = !snap || !camera;
    this.reticle.setAttribute('visibility', hidden ? 'hidden' : 'visible');
    this.label.classList.toggle('hidden', hidden);
    mark(this.label, 'snap-label', !hidden);
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

  dispose(): void {
    this.svg.remove();
    this.label.remove();
  }

  private drawPins(camera: Camera): void {
    this.pins.forEach(({ at }, i) => {
      const [x, y, depth] = project(camera, at);
      const group = this.pinGroup.children[i]!;
      show(group, camera.state.projection === 'parallel' || depth > 0);
      group.setAttribute('transform', `translate(${x} ${y})`);
    });
  }

  private drawMeasure(camera: Camera): void {
    this.measure.setAttribute('visibility', this.shown ? 'visible' : 'hidden');
    mark(this.measureText, 'measure', this.shown !== null);
    if (!this.shown) return;
    const { from, to, distance, scene } = this.shown;
    const [a, b] = [project(camera, from), project(camera, to)];
    setLine(this.measureLine, a, b);
    this.measureText.textContent = formatLengthWithUnit(distance, exactStyle(scene));
    this.measureText.setAttribute('x', String((a[0] + b[0]) / 2));
    this.measureText.setAttribute('y', String((a[1] + b[1]) / 2 - 8));
  }

  private drawTripod(camera: Camera): void {
    const [cx, cy] = [camera.width - 44, camera.pixelHeight - 46];
    ([0, 1, 2] as const).forEach((axis) => {
      const direction = column(this.axes, axis);
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

/** Of several views, tests look at the one that shows something. */
function mark(element: HTMLElement | SVGElement, name: string, isShown: boolean): void {
  if (isShown) element.dataset.testid = name;
  else delete element.dataset.testid;
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
