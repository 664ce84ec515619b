/** What every situation of the pointer needs: the view it is in, where it is, what it catches, and telling that. */
import {
  MEETING,
  cleanLength,
  gridPointOn,
  instanceUnder,
  planeUnder,
  alongGuide,
  carry,
  carryBack,
  roundPoint,
  toStep,
  formatLength,
  formatLengthTold,
  lineage,
  nearestGridPoint,
  pointOnRay,
  rayThrough,
  rayToPlane,
  readableName,
  resolveOne,
  selectableOf,
  vectorOf,
  verbNamed,
  type ItemId,
  type NumVector,
  type Plane,
  type Pose,
  type Ray,
  type Snap,
  type SnapKind,
  type Vec3,
} from '@kadrel/core';
import { live } from '../session/live.ts';
import type { Statement } from '../session/statement.ts';
import { GROUND, type Pane } from './pane.ts';
import type { Stage } from './stage.ts';

/** A point under the pointer, caught or free. */
export interface Caught {
  readonly point: Vec3;
  readonly snap: Snap | null;
}

/** Kinds that are no point of their own. */
const FREE_KINDS: ReadonlySet<SnapKind> = new Set<SnapKind>(['on face', 'on plane', 'half-way', 'grid']);

/** A ground seen flatter than this (sine) gives no place under the pointer. */
const EDGE_ON = 0.05;

/** What tools share: the pointer, what it catches, and the statement in hand. */
export class Hand {
  pane: Pane;
  last = { x: 0, y: 0, ctrl: false, shift: false, alt: false };
  /** A point that was told by a number, and stands for what is under the pointer. */
  given: Vec3 | null = null;
  /** Entries of the bar that show what the pointer makes of them. */
  readonly told = new Set<string>();

  constructor(readonly stage: Stage) {
    this.pane = stage.active;
  }

  get session() {
    return this.stage.session;
  }

  get overlay() {
    return this.pane.overlay;
  }

  state() {
    return this.session.store.getState();
  }

  place(event: MouseEvent): void {
    const { left, top } = this.pane.host.getBoundingClientRect();
    this.last = {
      x: event.clientX - left,
      y: event.clientY - top,
      ctrl: event.ctrlKey || event.metaKey,
      shift: event.shiftKey,
      alt: event.altKey,
    };
  }

  openStatement(): Statement | null {
    const { statement } = this.state();
    return statement?.phase === 'open' ? statement : null;
  }

  ray(): Ray {
    return rayThrough(this.pane.camera, this.last.x, this.last.y);
  }

  snap(without?: ReadonlySet<ItemId>, only?: ReadonlySet<SnapKind>): Snap | null {
    const { x, y, ctrl } = this.last;
    if (ctrl || !this.isServed()) return null;
    return this.stage.catcher.snap(this.pane, x, y, { without, only, from: this.fromPoint(), touches: true });
  }

  /** Each of Move, Turn and Resize can be kept from snapping. */
  private isServed(): boolean {
    const { statement, manner } = this.state();
    return manner.serves[statement?.verb as keyof typeof manner.serves] ?? true;
  }

  /** The point that the pick goes from: perpendiculars, tangents and parallels begin there. */
  fromPoint(): Vec3 | undefined {
    const statement = this.openStatement();
    const verb = statement && verbNamed(statement.verb)!;
    if (!verb || verb.blanks.from?.type !== 'point' || statement.focus?.blank === 'from') return undefined;
    const at = resolveOne(verb, 'from', statement.typed, this.state().document, this.session.world());
    return Array.isArray(at) ? vectorOf(at as unknown as NumVector) : undefined;
  }

  /** A point as it is typed or picked, by number; null for what is told by names. */
  pointOf(value: unknown): Vec3 | null {
    if (!Array.isArray(value) || value.length !== 3) return null;
    const numbers = value.map((text) => this.session.readLength(String(text)));
    return numbers.every((n) => n !== undefined) ? (numbers as unknown as Vec3) : null;
  }

  /** A snap that is a point of its own: not just somewhere on a face or on the grid. */
  pointSnap(without?: ReadonlySet<ItemId>): Snap | null {
    const snap = this.snap(without);
    return snap && !FREE_KINDS.has(snap.kind) ? snap : null;
  }

  /** What is under the pointer: a snap, else a point of the ground on the grid, or of an upright plane where the ground is edge-on. */
  catchPoint(without?: ReadonlySet<ItemId>, only?: ReadonlySet<SnapKind>): Caught | null {
    if (this.given) return { point: this.given, snap: null };
    const snap = this.snap(without, only);
    const drawn = this.session.drawingPlane();
    // A plane that is drawn on has a grid of its own.
    if (snap && !(drawn && snap.kind === 'grid')) return { point: this.onFaceGrid(snap), snap };
    if (drawn) return this.catchOn(drawn);
    const ray = this.ray();
    const plane = Math.abs(ray.direction[2]) < EDGE_ON ? uprightPlane(ray.direction) : GROUND;
    const far = rayToPlane(ray, plane);
    if (far === undefined || (far < 0 && this.pane.camera.state.projection === 'perspective')) return null;
    const free = pointOnRay(ray, far);
    const { grid } = this.state().document.scene;
    return { point: this.last.ctrl ? free : nearestGridPoint(free, plane, grid), snap: null };
  }

  /** Somewhere on a flat face: a point of the grid that is laid on it, unless Ctrl is held. */
  private onFaceGrid(snap: Snap): Vec3 {
    const instance =
      snap.kind === 'on face' && !this.last.ctrl ? instanceUnder(this.stage.scene, snap) : undefined;
    const plane = instance && planeUnder(instance, snap);
    return plane ? gridPointOn(snap.point, plane, this.state().document.scene.grid) : snap.point;
  }

  /** A point of the plane that is drawn on, on the plane's own grid. */
  private catchOn(plane: Pose): Caught | null {
    const point = this.onPlane(plane, plane.shift);
    return point && { point: this.last.ctrl ? point : this.toGridOf(plane, point), snap: null };
  }

  /** Where the pointer meets the plane through a point that lies along a pose's X and Y; null where it does not. */
  onPlane({ turn }: Pose, through: Vec3): Vec3 | null {
    const ray = this.ray();
    const far = rayToPlane(ray, { point: through, normal: [turn[2], turn[5], turn[8]] });
    if (far === undefined || (far < 0 && this.pane.camera.state.projection === 'perspective')) return null;
    return roundPoint(pointOnRay(ray, far));
  }

  /** The nearest point of a pose's own grid. */
  toGridOf(plane: Pose, point: Vec3): Vec3 {
    const { grid } = this.state().document.scene;
    const [x, y, z] = carryBack(plane, point);
    return roundPoint(carry(plane, [toStep(x, grid), toStep(y, grid), cleanLength(z)]));
  }

  words(point: Vec3): string {
    const { scene } = this.state().document;
    return point.map((n) => formatLengthTold(n, { ...scene, trailingZeros: true })).join('  ');
  }

  featureWords(snap: Snap): string {
    return snap.feature === undefined
      ? ''
      : readableName(snap.feature, this.state().document).replaceAll(MEETING, ' · ');
  }

  nameOf(snap: Snap): string {
    if (snap.pin !== undefined) return snap.pin;
    const name = snap.part === undefined ? '' : (this.state().document.items[snap.part]?.name ?? '');
    return snap.member === undefined ? name : `${name} ${snap.member}`;
  }

  /** What a click on a standing item means: the item, or the closed group that it is in. */
  selectable(part: ItemId): ItemId {
    const { document, openGroup } = this.state();
    return selectableOf(document, part, openGroup);
  }

  isInOpenGroup(part: ItemId): boolean {
    const { document, openGroup } = this.state();
    return openGroup === null || lineage(document, part).includes(openGroup);
  }

  /** The kind of a snap, and where it is, in words. */
  snapWords(snap: Snap): { title: string; detail: string } {
    const words = [this.nameOf(snap), snap.words ?? this.featureWords(snap)];
    return { title: snap.kind, detail: words.filter(Boolean).join(' · ') };
  }

  showCaught(caught: Caught | null): void {
    const { guide: along, meeting = [] } = caught?.snap ?? {};
    const guides = along ? [along] : meeting;
    this.overlay.guides.showGuides(guides.map((guide) => ({ guide, to: caught!.point })));
    if (!caught) this.overlay.showSnap(null);
    else if (caught.snap) {
      const { title, detail } = this.snapWords(caught.snap);
      const { guide } = caught.snap;
      const far = guide && formatLength(alongGuide(guide, caught.point), this.state().document.scene);
      const stays = this.stage.catcher.staysOn === null ? '' : ' · stays on this part';
      this.overlay.showSnap(
        caught.snap,
        title,
        detail + stays,
        `${this.words(caught.point)}${far === undefined ? '' : ` · ${far} along`}`,
      );
    } else this.overlay.showSnap({ point: caught.point }, 'free', '', this.words(caught.point));
  }

  /** Tells the bar's fields what the drag makes of them; fields that were typed keep their text. */
  tell(statement: Statement, blank: string, numbers: readonly number[]): void {
    const { scene } = this.state().document;
    numbers.forEach((n, axis) => {
      const key = numbers.length === 1 ? blank : `${blank}.${axis}`;
      if (!statement.held.has(key)) live.tell(key, formatLength(n, scene));
    });
  }

  /** Shows what a statement would come to, while the pointer moves. */
  preview(statement: Statement): void {
    const found = this.session.preview(statement);
    if ('placed' in found) this.stage.placePreview(found);
  }

  /** Carries the statement out; where it is refused, the preview goes. */
  commit(): void {
    void this.session.commit().then((isDone) => {
      if (!isDone) this.stage.showPreview(this.state().statement);
    });
  }
}

/** Through the origin, facing the viewer as nearly as an axis plane can. */
function uprightPlane([x, y]: Vec3): Plane {
  return { point: [0, 0, 0], normal: Math.abs(x) > Math.abs(y) ? [1, 0, 0] : [0, 1, 0] };
}
