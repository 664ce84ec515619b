/** What stands over a view: grips, pins, reticle with its words, guides, the region of a selection, tripod. Moved by hand, never by React. */
import { column, project, NO_TURN, type Camera, type Snap, type Turn, type Vec3 } from '@kadrel/core';
import { Grips, type Grip, type GripSet } from './grips.ts';
import { GuideMarks } from './guideMarks.ts';
import { HandleMarks, type HandleSet } from './handles.ts';
import { RegionMark } from './regionMark.ts';
import {
  DockMarks,
  MeasureMarks,
  PlaceMarks,
  faultSign,
  pinSign,
  startSign,
  type ShownDock,
  type ShownMeasure,
} from './marks.ts';
import { AXIS_LETTERS, AXIS_ROLES, letter, make, makeSvg, mark, placeLetter, setLine } from './svg.ts';

interface ShownPin {
  readonly name: string;
  readonly at: Vec3;
}

/** What stands over one view. */
export class Overlay {
  readonly grips: Grips;
  readonly guides: GuideMarks;
  readonly region: RegionMark;
  private readonly svg: SVGSVGElement;
  private readonly pins: PlaceMarks;
  private readonly docks: DockMarks;
  private readonly handles: HandleMarks;
  private readonly reticle: SVGGElement;
  private readonly rubber: SVGLineElement;
  private readonly measures: MeasureMarks;
  private readonly faults: PlaceMarks;
  private readonly starts: PlaceMarks;
  private readonly tripod: SVGGElement;
  private readonly tripodLines: SVGLineElement[];
  private readonly tripodLetters: SVGTextElement[];
  private readonly label: HTMLDivElement;
  private axes: Turn = NO_TURN;
  private camera: Camera | null = null;

  constructor(host: HTMLElement) {
    this.svg = makeSvg(host);
    this.pins = new PlaceMarks(this.svg, pinSign);
    this.docks = new DockMarks(this.svg);
    this.handles = new HandleMarks(this.svg);
    this.rubber = make('line', this.svg, {
      stroke: 'var(--plum)',
      'stroke-dasharray': '4 3',
      'stroke-width': '1.4',
      visibility: 'hidden',
    });
    this.measures = new MeasureMarks(this.svg);
    this.faults = new PlaceMarks(this.svg, faultSign);
    this.grips = new Grips(this.svg);
    this.starts = new PlaceMarks(this.svg, startSign);
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
    this.pins.draw(camera);
    this.docks.draw(camera);
    this.starts.draw(camera);
    this.handles.draw(camera);
    this.measures.draw(camera);
    this.faults.draw(camera);
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
    this.pins.show(pins);
    if (this.camera) this.pins.draw(this.camera);
  }

  setDocks(docks: readonly ShownDock[]): void {
    this.docks.show(docks);
    if (this.camera) this.docks.draw(this.camera);
  }

  /** The same docks, where what is in hand would take them. */
  placeDocks(docks: readonly ShownDock[]): void {
    this.docks.place(docks);
    if (this.camera) this.docks.draw(this.camera);
  }

  /** Where the sides of the selected loft begin. */
  setStarts(starts: readonly ShownPin[]): void {
    this.starts.show(starts);
    if (this.camera) this.starts.draw(this.camera);
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

  showMeasures(measures: readonly ShownMeasure[]): void {
    this.measures.show(measures);
    if (this.camera) this.measures.draw(this.camera);
  }

  /** Where something cannot be built. */
  showFaults(places: readonly Vec3[]): void {
    this.faults.show(places.map((at) => ({ at })));
    if (this.camera) this.faults.draw(this.camera);
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
    mark(this.label, { name: 'snap-label', isShown: !hidden });
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
