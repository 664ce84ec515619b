/** What the pointer has touched by resting on it: rays go out from there; and the part that a pick stays on. */
import {
  MERGED,
  guidesFrom,
  instanceUnder,
  touch,
  withoutTouch,
  type ItemId,
  type Snap,
  type SnapKind,
  type Touched,
  type Vec3,
} from '@kadrel/core';
import { frameAxes } from './gripSet.ts';
import type { Stage } from './stage.ts';

/** Resting on a point or an edge for this long touches it. */
const TOUCH_MS = 450;
const TOUCHABLE: ReadonlySet<SnapKind> = new Set<SnapKind>([
  'endpoint',
  'midpoint',
  'centre',
  'quadrant',
  'face centre',
  'intersection',
  'datum',
  'box point',
  'part centre',
  'mass centre',
  'pin',
  'dock',
  'origin',
  'on edge',
]);

/** What was touched, over all views. */
export class Touches {
  private touched: readonly Touched[] = [];
  private stayOn: ItemId | null = null;
  private timer = 0;
  private resting = '';

  constructor(private readonly stage: Stage) {}

  get all(): readonly Touched[] {
    return this.touched;
  }

  /** The part that picks keep to. */
  get staysOn(): ItemId | null {
    return this.stayOn;
  }

  /** Starts the wait over what is caught, unless it is running. */
  rest(snap: Snap | null): void {
    const { snapKinds, manner } = this.stage.session.store.getState();
    // Where guides meet one is about to pick; touching that would only double them.
    const isTouchable = snap && TOUCHABLE.has(snap.kind) && !snap.meeting;
    const key = isTouchable ? restKey(snap) : '';
    if (key === this.resting) return;
    this.resting = key;
    window.clearTimeout(this.timer);
    if (!snap || key === '') return;
    this.timer = window.setTimeout(() => {
      if (manner.stayOnPart && snap.part !== undefined) this.stayOn = snap.part;
      if (snapKinds.has('guide') || snapKinds.has('parallel')) this.touchNow(snap);
    }, TOUCH_MS);
  }

  private touchNow(snap: Snap): void {
    const instance = instanceUnder(this.stage.model.scene, snap);
    const guides = guidesFrom(snap, instance, frameAxes(this.stage.session));
    this.keep(touch(this.touched, { snap, guides }));
    this.stage.pointer.follow?.();
  }

  /** Picks keep to a part, or no longer to any. */
  stay(part: ItemId | null): void {
    this.stayOn = part;
  }

  /** Lets go of what was touched; whether there was anything. */
  drop(): boolean {
    window.clearTimeout(this.timer);
    const had = this.touched.length > 0 || this.stayOn !== null;
    this.stayOn = null;
    this.resting = '';
    this.keep([]);
    return had;
  }

  /** What was caught is picked: that the pointer rested on it was for the pick, and calls up no rays. */
  used({ point }: Snap): void {
    window.clearTimeout(this.timer);
    this.keep(withoutTouch(this.touched, point));
  }

  private keep(touched: readonly Touched[]): void {
    this.touched = touched;
    const points: Vec3[] = touched.map(({ snap }) => snap.point);
    for (const pane of this.stage.panes.all) pane.overlay.guides.showTouched(points);
  }
}

/** Along an edge the resting place is known to half a millimetre's worth of pixels; elsewhere it is the point. */
const restKey = ({ kind, part, feature, point }: Snap): string =>
  `${kind} ${part} ${feature?.split(MERGED)[0]} ${point.map((n) => n.toFixed(3)).join()}`;
