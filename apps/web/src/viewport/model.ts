/** The solids of the document on show, as they were built; what did not change is found again. */
import {
  buildName,
  carryBack,
  chain,
  datumInPart,
  definitionOf,
  inverse,
  placedIn,
  poseOfPlacement,
  visibleParts,
  withAllBelow,
  worldFromPart,
  type ItemId,
  type KadrelDocument,
  type Part,
  type Placed,
  type Pose,
  type SnapInstance,
} from '@kadrel/core';
import type { ShapeFacts } from '@kadrel/kernel';
import { measuresOf, type Built } from '../session/built.ts';
import { placesOf, type Places } from './solids.ts';

/** An item as it is drawn. */
export interface ShownItem {
  readonly part: Part;
  /** From the item's own frame. */
  readonly pose: Pose;
  readonly places: readonly Places[];
  readonly instances: readonly SnapInstance[];
}

interface Kept {
  /** What the solids follow from: parts, as they are in the document, and keys. */
  readonly from: readonly unknown[];
  readonly solids: readonly OwnSolid[];
  readonly places: readonly Places[];
  pose: Pose;
  instances: readonly SnapInstance[];
}

/** A solid in the item's own frame. */
interface OwnSolid {
  readonly placed: Placed;
  readonly facts: ShapeFacts;
}

/** The solids of the document, as they are drawn. */
export class Model {
  private kept = new Map<ItemId, Kept>();

  /** The visible items that are built. */
  show(document: KadrelDocument, built: Built): ShownItem[] {
    const kept = new Map<ItemId, Kept>();
    const shown: ShownItem[] = [];
    for (const part of visibleParts(document)) {
      const now = this.keep(document, part, built);
      if (now.solids.length === 0) continue;
      kept.set(part.id, now);
      shown.push({ part, pose: now.pose, places: now.places, instances: now.instances });
    }
    this.kept = kept;
    return shown;
  }

  private keep(document: KadrelDocument, part: Part, built: Built): Kept {
    const below = withAllBelow(document, part.id);
    const more = below.map((one) => definitionOf(document, one)).filter((one) => !below.includes(one));
    const parts = [...below, ...more.flatMap((one) => withAllBelow(document, one.id))];
    const keys = parts.map(({ id }) => built.parts[id]?.key);
    const from = [...parts, ...keys];
    const before = this.kept.get(part.id);
    const isKept =
      before !== undefined &&
      before.from.length === from.length &&
      before.from.every((one, i) => one === from[i] || isMoved(one, from[i], part.id));
    const pose = worldFromPart(document, part.id);
    const kept = isKept ? before : solidsOf(document, part, built, from);
    if (!isKept || !isSamePose(kept.pose, pose) || before.from[0] !== part) {
      kept.pose = pose;
      kept.instances = instancesOf(part, kept.solids, pose, built);
      return { ...kept, from };
    }
    return kept;
  }
}

/** The item itself may have been moved, named or coloured: its recipe is what its solids follow from. */
const isMoved = (before: unknown, now: unknown, id: ItemId): boolean =>
  isPart(before) && isPart(now) && now.id === id && before.recipe === now.recipe;
const isPart = (one: unknown): one is Part => typeof one === 'object' && one !== null && 'recipe' in one;

const isSamePose = (a: Pose, b: Pose) =>
  a.turn.every((n, i) => n === b.turn[i]) && a.shift.every((n, i) => n === b.shift[i]);

function solidsOf(document: KadrelDocument, part: Part, built: Built, from: readonly unknown[]): Kept {
  // In the item's own frame: its placement is taken back.
  const own = placedIn(document, part.id, inverse(poseOfPlacement(part.placement)));
  const solids = own.flatMap((placed): OwnSolid[] => {
    const key = built.parts[buildName(placed)]?.key;
    const facts = key === undefined ? undefined : built.factsOf(key);
    return facts ? [{ placed, facts }] : [];
  });
  const places = placesOf(
    solids.map(({ placed: { pose }, facts }) => ({
      key: facts.key,
      at: { linear: pose.turn, shift: pose.shift },
    })),
  );
  return { from, solids, places, pose: UNPLACED, instances: [] };
}
const UNPLACED: Pose = { turn: [0, 0, 0, 0, 0, 0, 0, 0, 0], shift: [0, 0, 0] };

function instancesOf(part: Part, solids: readonly OwnSolid[], pose: Pose, built: Built): SnapInstance[] {
  const own = datumInPart(part, () => measuresOf({ built }, part.id)?.box);
  return solids.map(({ placed, facts }, i): SnapInstance => {
    const { box, centroid } = facts.measures;
    // The datum of a pattern is caught once, with its first solid.
    const datum = i === 0 && own ? carryBack(placed.pose, own) : undefined;
    return {
      part: part.id,
      ...(placed.member === '' ? {} : { member: placed.member }),
      ...(placed.leaf === part.id ? {} : { leaf: placed.leaf }),
      pose: chain(pose, placed.pose),
      shape: facts.snaps,
      box,
      mass: centroid,
      ...(datum ? { datum } : {}),
      ...(part.recipe.base.kind === 'section' ? { isOpen: true as const } : {}),
    };
  });
}

/** Whether two items look the same and stand in the same place. */
export const isDrawnAlike = (a: ShownItem, b: ShownItem | undefined): boolean =>
  b !== undefined &&
  isSamePose(a.pose, b.pose) &&
  a.places.length === b.places.length &&
  a.places.every(
    ({ key, matrices }, i) =>
      key === b.places[i]!.key &&
      matrices.length === b.places[i]!.matrices.length &&
      matrices.every((n, k) => n === b.places[i]!.matrices[k]),
  );
