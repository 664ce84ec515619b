/**
 * What the pointer catches: the snaps by the settings of the session, the things it has touched, the next within reach,
 * and the list of them. One for all views, so that turning, zooming and going to another view lose nothing.
 */
import {
  MERGED,
  alongGuide,
  guidesFrom,
  instanceUnder,
  lineage,
  selectableOf,
  parallelsThrough,
  partsUnder,
  pinsOf,
  resolveSnap,
  snapsWithin,
  touch,
  withoutTouch,
  vectorOf,
  type Guide,
  type ItemId,
  type Snap,
  type SnapKind,
  type SnapQuery,
  type Touched,
  type Vec3,
} from '@kadrel/core';
import { snapDocks } from '../session/docks.ts';
import { createStore } from 'zustand/vanilla';
import { GROUND, type Pane } from './pane.ts';
import type { SessionState } from '../session/state.ts';
import type { Stage } from './stage.ts';

/** How near the pointer must be to what it catches, pixels. */
const REACH_PX = 11;
/** Resting on a point or an edge for this long touches it. */
const TOUCH_MS = 450;
/** Farther than this from where the next was asked for, the nearest is meant again, pixels. */
const STEADY_PX = 4;
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

/** What is asked of the snaps for one look. */
export interface Catching {
  readonly without?: ReadonlySet<ItemId> | undefined;
  readonly only?: ReadonlySet<SnapKind> | undefined;
  readonly from?: Vec3 | undefined;
  /** Resting touches: during picks and drags. */
  readonly touches?: boolean;
}

/** What is within reach, as a list at the pointer. */
export interface CatchList {
  readonly left: number;
  readonly top: number;
  readonly rows: readonly { readonly title: string; readonly detail: string }[];
  readonly choose: (row: number) => void;
}

/** A distance that is being typed along a guide. */
export interface Typing {
  readonly left: number;
  readonly top: number;
  readonly text: string;
  /** What the guide runs along. */
  readonly words: string;
  readonly take: (mm: number) => void;
}

/** Whether a part may be caught, as the manner of the session says. */
function mayCatch({ document, manner, selection }: SessionState): (id: ItemId) => boolean {
  const selected = new Set(selection);
  return (id) => {
    const part = document.items[id];
    if (!part) return false;
    // What holds for a group holds for what is in it.
    const above = part.parent === null ? [id] : lineage(document, id);
    const all = above.map((one) => document.items[one]!);
    if (all.some(({ snappable }) => !snappable)) return false;
    if (!manner.catchLocked && all.some(({ locked }) => locked)) return false;
    const isSelected = above.some((one) => selected.has(one));
    return manner.catching === 'all' || isSelected === (manner.catching === 'selected');
  };
}

/** What the pointer catches, over all views. */
export class Catcher {
  readonly list = createStore<{ readonly shown: CatchList | null; readonly typing: Typing | null }>(() => ({
    shown: null,
    typing: null,
  }));
  /** The pointer has moved in a view since the statement's focus changed or something was typed. */
  isFresh = false;
  caught: Snap | null = null;
  private touched: readonly Touched[] = [];
  private query: SnapQuery | null = null;
  private index = 0;
  private steadyAt: readonly [number, number] = [0, 0];
  private stayOn: ItemId | null = null;
  private timer = 0;
  private resting = '';

  constructor(private readonly stage: Stage) {}

  /** The snap under a pixel of a view. */
  snap(pane: Pane, x: number, y: number, catching: Catching): Snap | null {
    const query = this.queryAt(pane, x, y, catching);
    this.query = query;
    if (this.index > 0 && Math.hypot(x - this.steadyAt[0], y - this.steadyAt[1]) > STEADY_PX) this.index = 0;
    const all = this.index > 0 ? snapsWithin(query) : [];
    this.caught = all[Math.min(this.index, all.length - 1)] ?? resolveSnap(query);
    if (catching.touches) this.rest(this.caught);
    return this.caught;
  }

  private queryAt(pane: Pane, x: number, y: number, { without, only, from }: Catching): SnapQuery {
    const state = this.stage.session.store.getState();
    const { snapKinds, forced, seeThrough, document, arePinsShown, manner } = state;
    const { stayOn } = this;
    const drawn = this.stage.session.drawingPlane();
    const pins = arePinsShown ? pinsOf(document).map(({ name, at }) => ({ name, at: vectorOf(at) })) : [];
    return {
      pointer: [x, y],
      camera: pane.camera,
      scene: pane.scene,
      settings: {
        kinds: forced ? new Set([forced]) : (only ?? snapKinds),
        seeThrough,
        reachPx: REACH_PX,
        gridStep: document.scene.grid,
        plane: drawn ? { point: drawn.shift, normal: [drawn.turn[2], drawn.turn[5], drawn.turn[8]] } : GROUND,
        divide: manner.divide,
        halfWay: manner.halfWay,
      },
      pins,
      docks: snapDocks(this.stage.shownDocks),
      from,
      guides: [
        // The last one first: where rays lie on each other, distances count from what was touched last.
        ...this.touched.toReversed().flatMap(({ guides }) => guides),
        ...(from ? parallelsThrough(from, this.touched) : []),
      ],
      // A pick that stays on a part sees nothing else.
      without: stayOn === null ? without : { has: (id) => id !== stayOn },
      may: mayCatch(state),
    };
  }

  /** Goes on to what else is within reach, and round; false after the last, and where there is nothing else. */
  next(): boolean {
    if (!this.query || !this.isFresh) return false;
    const count = snapsWithin(this.query).length;
    this.steadyAt = this.query.pointer;
    this.index = count > 1 ? (this.index + 1) % count : 0;
    return this.index > 0;
  }

  /** A list of what is within reach of the pointer, or of the parts under it where nothing is picked. */
  openList(
    pane: Pane,
    {
      isPicking,
      words,
    }: { readonly isPicking: boolean; readonly words: (snap: Snap) => { title: string; detail: string } },
  ): boolean {
    return isPicking && this.query
      ? this.listSnaps(pane, snapsWithin(this.query).map(words))
      : this.listParts(pane);
  }

  private listSnaps(pane: Pane, rows: CatchList['rows']): boolean {
    const choose = (row: number) => {
      this.steadyAt = this.query!.pointer;
      this.index = row;
      this.closeList();
      this.stage.follow?.();
    };
    if (rows.length > 0) this.list.setState({ shown: { ...this.besidePointer(pane), rows, choose } });
    return rows.length > 0;
  }

  private listParts(pane: Pane): boolean {
    const { x, y } = this.stage.pointer ?? { x: 0, y: 0 };
    const { session } = this.stage;
    const { items } = session.store.getState().document;
    const parts = this.partsUnder(pane, x, y);
    const rows = parts.map((id, i) => ({
      title: items[id]!.name,
      detail: i === 0 ? 'in front' : `${i} behind`,
    }));
    const choose = (row: number) => {
      session.select([parts[row]!]);
      this.closeList();
    };
    if (rows.length > 0) this.list.setState({ shown: { ...this.besidePointer(pane), rows, choose } });
    return rows.length > 0;
  }

  private besidePointer(pane: Pane) {
    const { x, y } = this.stage.pointer ?? { x: 0, y: 0 };
    const rect = pane.host.getBoundingClientRect();
    const outer = this.stage.canvas.getBoundingClientRect();
    return { left: rect.left - outer.left + x + 14, top: rect.top - outer.top + y + 14 };
  }

  /** Opens the field for a distance along the guide that is caught; false where none is. */
  typeAlong(pane: Pane, text: string, take: (guide: Guide, mm: number) => void): boolean {
    const { caught } = this;
    const guide = caught?.guide;
    if (!guide) return false;
    const side = alongGuide(guide, caught.point) < 0 ? -1 : 1;
    this.list.setState({
      typing: {
        ...this.besidePointer(pane),
        text,
        words: guide.words,
        // A number without a sign counts towards the side that the pointer is on.
        take: (mm) => take(guide, side * mm),
      },
    });
    return true;
  }

  stopTyping(): void {
    this.list.setState({ typing: null });
  }

  closeList(): void {
    this.list.setState({ shown: null });
  }

  /** Selects the part behind the selected one under the pointer, and round. */
  selectBehind(pane: Pane, x: number, y: number): void {
    const parts = this.partsUnder(pane, x, y);
    if (parts.length === 0) return;
    const { session } = this.stage;
    const [only] = session.store.getState().selection;
    session.select([parts[(parts.indexOf(only ?? '') + 1) % parts.length]!]);
  }

  private partsUnder(pane: Pane, x: number, y: number): ItemId[] {
    const { document, openGroup } = this.stage.session.store.getState();
    const under = partsUnder(pane.camera, [x, y], pane.scene);
    return [...new Set(under.map((id) => selectableOf(document, id, openGroup)))];
  }

  get touchedPoints(): Vec3[] {
    return this.touched.map(({ snap }) => snap.point);
  }

  /** Lets go of what was touched; whether there was anything. */
  drop(): boolean {
    window.clearTimeout(this.timer);
    const had = this.touched.length > 0 || this.stayOn !== null;
    this.touched = [];
    this.stayOn = null;
    this.resting = '';
    this.showTouched();
    return had;
  }

  /** What was caught is picked: that the pointer rested on it was for the pick, and calls up no rays. */
  used({ point }: Snap): void {
    window.clearTimeout(this.timer);
    this.touched = withoutTouch(this.touched, point);
    this.showTouched();
  }

  /** The focus went to another blank: the next pick begins. */
  nextPick(): void {
    this.isFresh = false;
    this.index = 0;
    this.stayOn = null;
    this.closeList();
  }

  /** Nothing is picked any more. */
  reset(): void {
    this.nextPick();
    this.drop();
    this.caught = null;
    this.query = null;
    const { session } = this.stage;
    if (session.store.getState().forced) session.set({ forced: null });
  }

  /** The pick keeps to the part that is caught now, or no longer. */
  toggleStay(): void {
    this.stayOn = this.stayOn === null ? (this.caught?.part ?? null) : null;
  }

  get staysOn(): ItemId | null {
    return this.stayOn;
  }

  /** Starts the wait over what is caught, unless it is running. */
  private rest(snap: Snap | null): void {
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
    const instance = instanceUnder(this.stage.scene, snap);
    const guides = guidesFrom(snap, instance, this.stage.frameAxes());
    this.touched = touch(this.touched, { snap, guides });
    this.showTouched();
    this.stage.follow?.();
  }

  private showTouched(): void {
    for (const pane of this.stage.panes) pane.overlay.guides.showTouched(this.touchedPoints);
  }
}

/** Along an edge the resting place is known to half a millimetre's worth of pixels; elsewhere it is the point. */
const restKey = ({ kind, part, feature, point }: Snap): string =>
  `${kind} ${part} ${feature?.split(MERGED)[0]} ${point.map((n) => n.toFixed(3)).join()}`;
