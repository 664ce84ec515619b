/** What is under the pointer: its ray, what it catches, and a point where it catches nothing. */
import {
  carry,
  carryBack,
  cleanLength,
  gridPointOn,
  instanceUnder,
  nearestGridPoint,
  planeUnder,
  pointOnRay,
  rayThrough,
  rayToPlane,
  resolveOne,
  roundPoint,
  toStep,
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
import type { Hand } from './hand.ts';
import { GROUND } from './pane.ts';

/** A point under the pointer, caught or free. */
export interface Caught {
  readonly point: Vec3;
  readonly snap: Snap | null;
}

/** Kinds that are no point of their own. */
const FREE_KINDS: ReadonlySet<SnapKind> = new Set<SnapKind>(['on face', 'on plane', 'half-way', 'grid']);

/** A ground seen flatter than this (sine) gives no place under the pointer. */
const EDGE_ON = 0.05;

/** Where the pointer of a hand points to. */
export class Aim {
  /** A point that was given by a number, and stands for what is under the pointer. */
  given: Vec3 | null = null;

  constructor(private readonly hand: Hand) {}

  ray(): Ray {
    return rayThrough(this.hand.pane.camera, this.hand.last.x, this.hand.last.y);
  }

  snap(without?: ReadonlySet<ItemId>, only?: ReadonlySet<SnapKind>): Snap | null {
    const { x, y, ctrl } = this.hand.last;
    if (ctrl || !this.isServed()) return null;
    return this.hand.stage.catcher.snap(this.hand.pane, x, y, {
      without,
      only,
      from: this.fromPoint(),
      touches: true,
    });
  }

  /** Each of Move, Turn and Resize can be kept from snapping. */
  private isServed(): boolean {
    const { statement, manner } = this.hand.state();
    return manner.serves[statement?.verb as keyof typeof manner.serves] ?? true;
  }

  /** The point that the pick goes from: perpendiculars, tangents and parallels begin there. */
  private fromPoint(): Vec3 | undefined {
    const statement = this.hand.openStatement();
    const verb = statement && verbNamed(statement.verb)!;
    if (!verb || verb.blanks.from?.type !== 'point' || statement.focus?.blank === 'from') return undefined;
    const at = resolveOne(verb, 'from', statement.typed, {
      document: this.hand.state().document,
      world: this.hand.session.world(),
    });
    return Array.isArray(at) ? vectorOf(at as unknown as NumVector) : undefined;
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
    const drawn = this.hand.session.drawingPlane();
    // A plane that is drawn on has a grid of its own.
    if (snap && !(drawn && snap.kind === 'grid')) return { point: this.onFaceGrid(snap), snap };
    if (drawn) return this.catchOn(drawn);
    const ray = this.ray();
    const plane = Math.abs(ray.direction[2]) < EDGE_ON ? uprightPlane(ray.direction) : GROUND;
    const far = rayToPlane(ray, plane);
    if (far === undefined || (far < 0 && this.hand.pane.camera.state.projection === 'perspective'))
      return null;
    const free = pointOnRay(ray, far);
    const { grid } = this.hand.state().document.scene;
    return { point: this.hand.last.ctrl ? free : nearestGridPoint(free, plane, grid), snap: null };
  }

  /** Somewhere on a flat face: a point of the grid that is laid on it, unless Ctrl is held. */
  private onFaceGrid(snap: Snap): Vec3 {
    const instance =
      snap.kind === 'on face' && !this.hand.last.ctrl
        ? instanceUnder(this.hand.stage.model.scene, snap)
        : undefined;
    const plane = instance && planeUnder(instance, snap);
    return plane ? gridPointOn(snap.point, plane, this.hand.state().document.scene.grid) : snap.point;
  }

  /** A point of the plane that is drawn on, on the plane's own grid. */
  private catchOn(plane: Pose): Caught | null {
    const point = this.onPlane(plane, plane.shift);
    return point && { point: this.hand.last.ctrl ? point : this.toGridOf(plane, point), snap: null };
  }

  /** Where the pointer meets the plane through a point that lies along a pose's X and Y; null where it does not. */
  onPlane({ turn }: Pose, through: Vec3): Vec3 | null {
    const ray = this.ray();
    const far = rayToPlane(ray, { point: through, normal: [turn[2], turn[5], turn[8]] });
    if (far === undefined || (far < 0 && this.hand.pane.camera.state.projection === 'perspective'))
      return null;
    return roundPoint(pointOnRay(ray, far));
  }

  /** The nearest point of a pose's own grid. */
  toGridOf(plane: Pose, point: Vec3): Vec3 {
    const { grid } = this.hand.state().document.scene;
    const [x, y, z] = carryBack(plane, point);
    return roundPoint(carry(plane, [toStep(x, grid), toStep(y, grid), cleanLength(z)]));
  }
}

/** Through the origin, facing the viewer as nearly as an axis plane can. */
function uprightPlane([x, y]: Vec3): Plane {
  return { point: [0, 0, 0], normal: Math.abs(x) > Math.abs(y) ? [1, 0, 0] : [0, 1, 0] };
}
