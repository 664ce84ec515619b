/** Distances that are shown in a view, and the places where something cannot be built. */
import { project, type Camera, type Vec3 } from '@kadrel/core';
import { FollowingMarks } from './followingMarks.ts';
import { fillGroup, letter, make, mark, setLine, show } from './svg.ts';

/** A distance to show between two points; where these are one, its words alone. */
export interface ShownMeasure {
  readonly from: Vec3;
  readonly to: Vec3;
  readonly words: string;
  readonly isBad?: boolean;
}

/** Lines with their lengths. */
export class MeasureMarks extends FollowingMarks {
  private readonly group: SVGGElement;
  private shown: readonly ShownMeasure[] = [];

  constructor(svg: SVGSVGElement) {
    super();
    this.group = make('g', svg);
  }

  show(measures: readonly ShownMeasure[]): void {
    this.shown = measures;
    fillGroup(this.group, measures.length, () => {
      const one = make('g', this.group);
      make('line', one, { stroke: 'var(--plum)', 'stroke-width': '1.6' });
      letter(one, 'var(--plum)', '');
    });
    measures.forEach(({ words, isBad }, i) => {
      const [line, text] = this.marksAt(i);
      const ink = isBad ? 'var(--bad)' : 'var(--plum)';
      line.setAttribute('stroke', ink);
      text.setAttribute('fill', ink);
      text.textContent = words;
    });
    this.redraw();
  }

  private marksAt(i: number) {
    return this.group.children[i]!.children as unknown as [SVGLineElement, SVGTextElement];
  }

  protected draw(camera: Camera): void {
    this.shown.forEach(({ from, to }, i) => {
      const [line, text] = this.marksAt(i);
      const [a, b] = [project(camera, from), project(camera, to)];
      setLine(line, a, b);
      text.setAttribute('x', String((a[0] + b[0]) / 2));
      text.setAttribute('y', String((a[1] + b[1]) / 2 - 8));
      // Only a view that is drawn shows it.
      mark(text, { name: 'measure', isShown: true });
    });
  }
}

interface ShownPlace {
  readonly at: Vec3;
  readonly name?: string;
}

/** The same sign at several places. */
export class PlaceMarks extends FollowingMarks {
  private readonly group: SVGGElement;
  protected places: readonly ShownPlace[] = [];

  /** @param sign draws one about the origin; a text in it is filled with the name of the place */
  constructor(
    svg: SVGSVGElement,
    private readonly sign: (parent: SVGGElement) => void,
  ) {
    super();
    this.group = make('g', svg);
  }

  show(places: readonly ShownPlace[]): void {
    this.places = places;
    fillGroup(this.group, places.length, () => this.sign(make('g', this.group)));
    places.forEach(({ name }, i) => {
      if (name !== undefined) this.group.children[i]!.querySelector('text')!.textContent = name;
    });
    this.redraw();
  }

  protected draw(camera: Camera): void {
    this.places.forEach(({ at }, i) => {
      const [x, y, depth] = project(camera, at);
      const one = this.group.children[i]!;
      show(one, { isShown: camera.state.projection === 'parallel' || depth > 0 });
      one.setAttribute('transform', `translate(${x} ${y})`);
    });
  }
}

/** A dock to show. */
export interface ShownDock {
  readonly at: Vec3;
  /** The way it looks, length 1. */
  readonly out: Vec3;
  readonly name: string;
  /** It is in a joint. */
  readonly isTaken: boolean;
  /** Its place is gone. */
  readonly isLost: boolean;
}

/** How long the stalk of a dock is on screen, px. */
const STALK_PX = 16;
/** More names than this say nothing: then the tags stand without them. */
const MAX_NAMES = 40;

/** Docks: a ring with a stalk the way it looks, full where something is joined to it. */
export class DockMarks extends FollowingMarks {
  private readonly group: SVGGElement;
  private docks: readonly ShownDock[] = [];

  constructor(svg: SVGSVGElement) {
    super();
    this.group = make('g', svg);
  }

  show(docks: readonly ShownDock[]): void {
    this.docks = docks;
    fillGroup(this.group, docks.length, () => dockSign(make('g', this.group)));
    docks.forEach(({ name, isTaken, isLost }, i) => {
      const one = this.group.children[i]!;
      const [ring, text] = [one.querySelector('circle')!, one.querySelector('text')!];
      const ink = isLost ? 'var(--bad)' : 'var(--ink)';
      ring.setAttribute('fill', isTaken ? ink : 'var(--ground)');
      for (const drawn of [ring, one.querySelector('line')!]) drawn.setAttribute('stroke', ink);
      text.textContent = docks.length > MAX_NAMES ? '' : name;
    });
    this.redraw();
  }

  /** The same docks, where what is in hand would take them. */
  place(docks: readonly ShownDock[]): void {
    this.docks = docks;
    this.redraw();
  }

  protected draw(camera: Camera): void {
    this.docks.forEach(({ at, out }, i) => {
      const [x, y, depth] = project(camera, at);
      const one = this.group.children[i]!;
      show(one, { isShown: camera.state.projection === 'parallel' || depth > 0 });
      one.setAttribute('transform', `translate(${x} ${y})`);
      const dx = camera.right[0] * out[0] + camera.right[1] * out[1] + camera.right[2] * out[2];
      const dy = camera.up[0] * out[0] + camera.up[1] * out[1] + camera.up[2] * out[2];
      const line = one.querySelector('line')!;
      line.setAttribute('x2', String(dx * STALK_PX));
      line.setAttribute('y2', String(-dy * STALK_PX));
    });
  }
}

function dockSign(parent: SVGGElement): void {
  parent.dataset.dock = '';
  make('line', parent, { 'stroke-width': '3', 'stroke-linecap': 'round' });
  make('circle', parent, { r: '4.5', 'stroke-width': '2' });
  nameBeside(parent, 'ink', 'start', [9, 12]);
}

/** Here it cannot be built: a ring with an exclamation mark beside it. */
export function faultSign(parent: SVGGElement): void {
  parent.dataset.testid = 'fault-place';
  for (const [stroke, width] of [
    ['var(--ground)', '6'],
    ['var(--bad)', '2.4'],
  ] as const)
    make('circle', parent, { r: '9', fill: 'none', stroke, 'stroke-width': width });
  const sign = letter(parent, 'var(--bad)', '!');
  sign.setAttribute('y', '-14');
  sign.setAttribute('font-size', '16');
}

/** The height of a contour. */
export function heightSign(parent: SVGGElement): void {
  parent.dataset.testid = 'contour-height';
  nameBeside(parent, 'ink2', 'start', [5, 4]);
}

function nameBeside(
  parent: SVGGElement,
  role: string,
  anchor: 'start' | 'end',
  at: readonly [number, number],
) {
  const text = letter(parent, `var(--${role})`, '');
  text.setAttribute('text-anchor', anchor);
  text.setAttribute('x', String(at[0]));
  text.setAttribute('y', String(at[1]));
}

/** A named pin. */
export function pinSign(parent: SVGGElement): void {
  make('path', parent, {
    d: 'M0 0L-4 -11A4.6 4.6 0 1 1 4 -11Z',
    fill: 'var(--ink)',
    stroke: 'var(--ground)',
    'stroke-width': '1',
  });
  nameBeside(parent, 'ink', 'start', [8, -9]);
}

/** A point that can be dragged. */
export function handleSign(parent: SVGGElement): void {
  make('circle', parent, { r: '4', fill: 'var(--ground)', stroke: 'var(--plum)', 'stroke-width': '1.6' });
}

/** Where the sides of a loft begin: a lozenge, with its name to the left, away from the grips and from pins. */
export function startSign(parent: SVGGElement): void {
  make('path', parent, {
    d: 'M0 -6L6 0L0 6L-6 0Z',
    fill: 'var(--ground)',
    stroke: 'var(--plum)',
    'stroke-width': '2',
  });
  nameBeside(parent, 'plum', 'end', [-10, 4]);
}
