/** Drawing a box or a cylinder: first the base on a plane, then the height. Sizes typed by hand keep the drag to them. */
import { nearestOnLine, pointOnRay, rayToPlane, toStep, type Vec3 } from '@kadrel/core';
import { withPointer, type Statement } from '../session/statement.ts';
import type { Caught, Hand } from './hand.ts';

/** The base is drawn from `corner`; `held` while the button is down. */
export interface Basing {
  readonly corner: Vec3;
  readonly held: boolean;
  readonly x: number;
  readonly y: number;
}

/** The base stands; the height is pulled from the corner `other`. */
export interface Raising {
  readonly corner: Vec3;
  readonly other: Vec3;
}

export const isMaking = (statement: Statement | null): statement is Statement =>
  statement !== null && (statement.verb === 'box' || statement.verb === 'cylinder');

/** Where a typed size keeps the drag, or undefined. */
function typedSize(hand: Hand, statement: Statement, blank: string, axis: number | null): number | undefined {
  const key = axis === null ? blank : `${blank}.${axis}`;
  if (!statement.held.has(key)) return undefined;
  const value = statement.typed[blank];
  return hand.session.readLength(String(axis === null ? value : (value as unknown[])[axis]));
}

function baseOf(
  hand: Hand,
  statement: Statement,
  corner: Vec3,
  pointer: Vec3,
): { at: Vec3; size: Vec3; other: Vec3 } {
  if (statement.verb === 'cylinder') {
    const radius = typedSize(hand, statement, 'radius', null);
    const across =
      typedSize(hand, statement, 'diameter', null) ??
      (radius === undefined ? 2 * Math.hypot(pointer[0] - corner[0], pointer[1] - corner[1]) : 2 * radius);
    return { at: corner, size: [across, across, 0], other: pointer };
  }
  const reach = (axis: 0 | 1) => {
    const drawn = pointer[axis] - corner[axis];
    const typed = typedSize(hand, statement, 'size', axis);
    return typed === undefined ? drawn : Math.sign(drawn || 1) * typed;
  };
  const [dx, dy] = [reach(0), reach(1)];
  return {
    at: [corner[0] + Math.min(0, dx), corner[1] + Math.min(0, dy), corner[2]],
    size: [Math.abs(dx), Math.abs(dy), 0],
    other: [corner[0] + dx, corner[1] + dy, corner[2]],
  };
}

function heightOf(hand: Hand, statement: Statement, foot: Vec3): number | undefined {
  const blank = statement.verb === 'box' ? 'size' : 'height';
  const typed = typedSize(hand, statement, blank, statement.verb === 'box' ? 2 : null);
  if (typed !== undefined) return typed;
  const snap = hand.pointSnap();
  if (snap) {
    hand.showCaught({ point: snap.point, snap });
    return snap.point[2] - foot[2];
  }
  hand.overlay.showSnap(null);
  const s = nearestOnLine(foot, [0, 0, 1], hand.ray());
  return s === undefined ? undefined : hand.last.ctrl ? s : toStep(s, hand.state().document.scene.grid);
}

function showBase(hand: Hand, statement: Statement, { at, size }: { at: Vec3; size: Vec3 }): void {
  hand.stage.picture.ghost({ shape: statement.verb === 'box' ? 'box' : 'cylinder', at, size });
  if (statement.verb === 'box') hand.tell(statement, 'size', size);
  else if (!statement.held.has('radius')) hand.tell(statement, 'diameter', [size[0]]);
  if (statement.verb === 'cylinder' && size[2] !== 0) hand.tell(statement, 'height', [size[2]]);
  hand.tell(statement, 'at', at);
  hand.stage.invalidate();
}

/** The first corner, or the centre; null where there is nothing under the pointer. */
export function startBase(hand: Hand): Basing | null {
  const caught = hand.catchPoint();
  const { x, y } = hand.last;
  return caught && { corner: caught.point, held: true, x, y };
}

export function drawBase(hand: Hand, { corner }: Basing): void {
  const statement = hand.openStatement();
  const caught = hand.catchPoint();
  hand.showCaught(caught);
  if (!statement || !caught) return;
  showBase(hand, statement, baseOf(hand, statement, corner, inPlane(hand, corner, caught)));
}

/** The point of the base's own plane that the pointer means: a snap's foot, else where the pointer pierces it. */
function inPlane(hand: Hand, corner: Vec3, caught: Caught): Vec3 {
  if (caught.snap || corner[2] === 0) return [caught.point[0], caught.point[1], corner[2]];
  const ray = hand.ray();
  const far = rayToPlane(ray, { point: corner, normal: [0, 0, 1] });
  if (far === undefined) return caught.point;
  const free = pointOnRay(ray, far);
  const step = hand.state().document.scene.grid;
  return hand.last.ctrl ? free : [toStep(free[0], step), toStep(free[1], step), corner[2]];
}

/** What comes next once the base stands; null while it has no size. */
export function endBase(hand: Hand, { corner }: Basing): Raising | null {
  const statement = hand.openStatement();
  const caught = hand.catchPoint();
  if (!statement || !caught) return null;
  const base = baseOf(hand, statement, corner, inPlane(hand, corner, caught));
  if (!(base.size[0] > 0 && base.size[1] > 0)) return null;
  hand.session.update((s) => {
    const placed = withPointer(s, 'at', base.at);
    const sized =
      s.verb === 'box'
        ? withPointer(placed, 'size', [base.size[0], base.size[1], 0])
        : s.held.has('radius')
          ? placed
          : withPointer(placed, 'diameter', [base.size[0]]);
    return {
      ...sized,
      focus: s.verb === 'box' ? { blank: 'size', axis: 2 } : { blank: 'height', axis: null },
    };
  });
  return { corner: base.at, other: base.other };
}

export function drawHeight(hand: Hand, { corner, other }: Raising): void {
  const statement = hand.openStatement();
  const height = statement && heightOf(hand, statement, other);
  if (statement && typeof height === 'number')
    showBase(hand, statement, standing(hand, statement, corner, height));
}

/** A base pulled down stands on its new bottom. */
function standing(hand: Hand, statement: Statement, corner: Vec3, height: number): { at: Vec3; size: Vec3 } {
  const [x, y] =
    statement.verb === 'box'
      ? [
          hand.session.readLength(String((statement.typed.size as unknown[])[0])),
          hand.session.readLength(String((statement.typed.size as unknown[])[1])),
        ]
      : diameterTwice(hand, statement);
  return {
    at: [corner[0], corner[1], corner[2] + Math.min(0, height)],
    size: [x ?? 0, y ?? 0, Math.abs(height)],
  };
}

function diameterTwice(hand: Hand, statement: Statement): [number | undefined, number | undefined] {
  const radius = statement.typed.radius;
  const across =
    radius === undefined || radius === ''
      ? hand.session.readLength(String(statement.typed.diameter))
      : 2 * (hand.session.readLength(String(radius)) ?? 0);
  return [across, across];
}

/** Carries the statement out; false while there is no height. */
export function endHeight(hand: Hand, { corner, other }: Raising): boolean {
  const statement = hand.openStatement();
  const height = statement && heightOf(hand, statement, other);
  if (!statement || typeof height !== 'number' || height === 0) return false;
  const { at, size } = standing(hand, statement, corner, height);
  hand.session.update((s) => {
    const placed = withPointer(s, 'at', at);
    return s.verb === 'box' ? withPointer(placed, 'size', size) : withPointer(placed, 'height', [size[2]]);
  });
  hand.overlay.showSnap(null);
  void hand.session.commit();
  return true;
}
