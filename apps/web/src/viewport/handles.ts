/** The points of the selected profile that can be dragged: their marks over a view, and the drag. */
import {
  carry,
  definitionOf,
  handlesOf,
  project,
  standsAsDrawn,
  worldFromPart,
  type ItemId,
  type Vec3,
} from '@kadrel/core';
import type { SessionState } from '../session/store.ts';
import { isHandled, withPointer, type Statement } from '../session/statement.ts';
import type { Hand } from './hand.ts';
import { showCaught, tellNumbers } from './telling.ts';
import { PlaceMarks, handleSign } from './marks.ts';

/** How near the pointer must come, pixels. */
const REACH_PX = 8;
/** More marks than these would only cover the drawing: it is changed in its table then. */
const MAX_MARKS = 200;

/** The points of a profile that can be dragged. */
export interface HandleSet {
  readonly profile: ItemId;
  /** In the world, mm. */
  readonly points: readonly Vec3[];
}

/** Of one selected profile that is not locked, while no other verb is in hand. */
export function handleSet({ selection, document, statement, lookingAt }: SessionState): HandleSet | null {
  const [profile, ...others] = selection;
  const part = profile === undefined ? undefined : document.items[profile];
  const isBusy = statement !== null && !isHandled(statement, 'points') && statement.phase !== 'done';
  if (!part || others.length > 0 || part.locked || isBusy || lookingAt !== null) return null;
  const { base, steps } = definitionOf(document, part).recipe;
  if (base.kind !== 'profile' || !standsAsDrawn(steps)) return null;
  const pose = worldFromPart(document, part.id);
  const points = handlesOf(base.figure).map(([x, y]) => carry(pose, [x, y, 0]));
  return points.length > MAX_MARKS ? null : { profile: part.id, points };
}

/** Marks of one view. */
export class HandleMarks extends PlaceMarks {
  constructor(svg: SVGSVGElement) {
    super(svg, handleSign);
  }

  showSet(set: HandleSet | null): void {
    this.show((set?.points ?? []).map((at) => ({ at })));
  }

  /** Which one is under the pointer; −1 for none. */
  at(x: number, y: number): number {
    const { camera } = this;
    if (!camera) return -1;
    let [best, near] = [-1, REACH_PX];
    this.places.forEach(({ at }, i) => {
      const [u, v] = project(camera, at);
      const off = Math.hypot(u - x, v - y);
      if (off < near) [best, near] = [i, off];
    });
    return best;
  }
}

/** A point that is held. */
export interface Handling {
  readonly profile: ItemId;
}

/** Takes hold of a point: the statement is Move point, and its place follows the pointer. */
export function takePoint(hand: Hand, index: number): Handling | null {
  const set = handleSet(hand.state());
  if (!set) return null;
  hand.session.start('point', { profile: set.profile, point: String(index + 1) });
  hand.session.focus({ blank: 'to', axis: null });
  return { profile: set.profile };
}

/** Where the point would go, while the pointer moves. */
export function dragPoint(hand: Hand, handling: Handling): void {
  const moved = pointMoved(hand, handling);
  if (!moved) return;
  tellNumbers(hand, { statement: moved.statement, blank: 'to' }, moved.point);
  hand.stage.previews.sketch(withPointer(moved.statement, 'to', moved.point));
}

/** Carries out what the drag came to; where it came to nothing all stays as it was. */
export function letPointGo(hand: Hand, handling: Handling): void {
  const moved = pointMoved(hand, handling);
  showCaught(hand, null);
  if (!moved) return hand.session.leave();
  hand.session.update((s) => ({ ...withPointer(s, 'to', moved.point), refusal: null }));
  void hand.session.commit();
}

function pointMoved(hand: Hand, { profile }: Handling): { statement: Statement; point: Vec3 } | null {
  const caught = hand.aim.catchPoint(new Set([profile]));
  showCaught(hand, caught);
  const statement = hand.openStatement();
  return caught && statement && { statement, point: caught.point };
}
