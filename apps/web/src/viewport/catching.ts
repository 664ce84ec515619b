/**
 * What the pointer catches: the snaps by the settings of the session, the things it has touched, the next within reach,
 * and the list of them. One for all views, so that turning, zooming and going to another view lose nothing.
 */
import {
  lineage,
  parallelsThrough,
  pinsOf,
  resolveSnap,
  snapsWithin,
  vectorOf,
  type ItemId,
  type Snap,
  type SnapKind,
  type SnapQuery,
  type Vec3,
} from '@kadrel/core';
import { snapDocks } from '../session/docks.ts';
import type { SessionState } from '../session/state.ts';
import { CatchLists, type CatchList } from './catchLists.ts';
import { GROUND, type Pane } from './pane.ts';
import type { Stage } from './stage.ts';
import { Touches } from './touches.ts';

/** How near the pointer must be to what it catches, pixels. */
const REACH_PX = 11;
/** Farther than this from where the next was asked for, the nearest is meant again, pixels. */
const STEADY_PX = 4;
/** What is asked of the snaps for one look. */
export interface Catching {
  readonly without?: ReadonlySet<ItemId> | undefined;
  readonly only?: ReadonlySet<SnapKind> | undefined;
  readonly from?: Vec3 | undefined;
  /** Resting touches: during picks and drags. */
  readonly touches?: boolean;
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
  /** The pointer has moved in a view since the statement's focus changed or something was typed. */
  isFresh = false;
  caught: Snap | null = null;
  private query: SnapQuery | null = null;
  private index = 0;
  private steadyAt: readonly [number, number] = [0, 0];
  readonly touches: Touches;
  readonly lists: CatchLists;

  constructor(private readonly stage: Stage) {
    this.touches = new Touches(stage);
    this.lists = new CatchLists(stage);
  }

  /** The snap under a pixel of a view. */
  snap(pane: Pane, x: number, y: number, catching: Catching): Snap | null {
    const query = this.queryAt(pane, x, y, catching);
    this.query = query;
    if (this.index > 0 && Math.hypot(x - this.steadyAt[0], y - this.steadyAt[1]) > STEADY_PX) this.index = 0;
    const all = this.index > 0 ? snapsWithin(query) : [];
    this.caught = all[Math.min(this.index, all.length - 1)] ?? resolveSnap(query);
    if (catching.touches) this.touches.rest(this.caught);
    return this.caught;
  }

  private queryAt(pane: Pane, x: number, y: number, { without, only, from }: Catching): SnapQuery {
    const state = this.stage.session.store.getState();
    const { snapKinds, forced, seeThrough, document, arePinsShown, manner } = state;
    const { staysOn, all } = this.touches;
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
      docks: snapDocks(this.stage.marks.shownDocks),
      from,
      guides: [
        // The last one first: where rays lie on each other, distances count from what was touched last.
        ...all.toReversed().flatMap(({ guides }) => guides),
        ...(from ? parallelsThrough(from, all) : []),
      ],
      // A pick that stays on a part sees nothing else.
      without: staysOn === null ? without : { has: (id) => id !== staysOn },
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

  /** A list of what is within reach of the pointer. */
  openList(pane: Pane, words: (snap: Snap) => CatchList['rows'][number]): boolean {
    const { query } = this;
    if (!query) return false;
    return this.lists.open(pane, snapsWithin(query).map(words), (row) => {
      this.steadyAt = query.pointer;
      this.index = row;
      this.stage.pointer.follow?.();
    });
  }

  /** The focus went to another blank: the next pick begins. */
  nextPick(): void {
    this.isFresh = false;
    this.index = 0;
    this.touches.stay(null);
    this.lists.close();
  }

  /** Nothing is picked any more. */
  reset(): void {
    this.nextPick();
    this.touches.drop();
    this.caught = null;
    this.query = null;
    const { session } = this.stage;
    if (session.store.getState().forced) session.set({ forced: null });
  }

  /** The pick keeps to the part that is caught now, or no longer. */
  toggleStay(): void {
    this.touches.stay(this.touches.staysOn === null ? (this.caught?.part ?? null) : null);
  }
}
