/** Kept cuts and slices follow what they were cut from: after a statement that has changed that, their curves are asked for anew. */
import { current, isDraft } from 'immer';
import { changedItems, type ChangedItems } from '../document/changed.ts';
import { idsListed } from '../document/itemIndex.ts';
import { freeName, isGroup, lineage, nextOrder, shiftedBy, worldFromPart } from '../document/items.ts';
import { withAllNeeded } from '../document/needed.ts';
import { placePart } from '../document/placing.ts';
import {
  childrenOf,
  type ItemId,
  type KadrelDocument,
  type Part,
  type TracedOf,
} from '../document/schema.ts';
import { referencesIn } from '../recipes/bodies/index.ts';
import type { DrawnPath } from '../curves/curve.ts';
import { column } from '../space/matrix.ts';
import {
  chain,
  isSamePose,
  motionBetween,
  NO_TURN,
  roundPoint,
  type Pose,
  type Turn,
} from '../space/pose.ts';
import { scale } from '../space/vector.ts';
import { Unanswerable, isRefusal, refuse, type Question, type Refusal, type VerbContext } from './declare.ts';
import { layersOf } from './layers.ts';
import { degreesOf } from './planes.ts';

/** Followed this often, a model that still changes follows itself: chains of cuts through what is made of cuts come to rest sooner. */
const MAX_ROUNDS = 6;

/** One statement’s worth of following. */
interface Following {
  /** The document that the draft was made from. */
  readonly before: KadrelDocument;
  readonly draft: KadrelDocument;
  /** Its questions are about the draft as it is now. */
  readonly context: Pick<VerbContext, 'ask' | 'newId'>;
}

const tracedIn = (document: KadrelDocument): readonly ItemId[] => idsListed(document, 'traced');

/** @param before what the statement began with @returns why the statement cannot be carried out */
export function cutsFollow(
  before: KadrelDocument,
  draft: KadrelDocument,
  context: VerbContext,
): Refusal | undefined {
  const traced = tracedIn(before).filter((id) => draft.items[id]?.traced);
  if (traced.length === 0) return undefined;
  moveAlong(before, draft, traced);
  let seen = before;
  for (let round = 0; round < MAX_ROUNDS; round++) {
    const now = isDraft(draft) ? current(draft) : draft;
    const items = changedItems(before, now);
    const fresh = otherSince(seen, now);
    const stale = traced.filter((id) => isStale(now, draft.items[id]?.traced, fresh));
    if (stale.length === 0) return undefined;
    const following = {
      before,
      draft,
      context: { newId: () => context.newId(), ask: askingOf(context, items) },
    };
    for (const id of stale) retrace(following, draft.items[id]!);
    seen = now;
  }
  return refuse('cut-circle', { names: traced.map((id) => draft.items[id]!.name).join(', ') });
}

/** Ids of items that differ. Plain copies of a draft are other objects each time. */
function otherSince(seen: KadrelDocument, now: KadrelDocument): ReadonlySet<ItemId> {
  const touched = Object.keys(changedItems(seen, now));
  return new Set(touched.filter((id) => JSON.stringify(seen.items[id]) !== JSON.stringify(now.items[id])));
}

/** Sentences about profiles that follow nothing any more, or whose cut has come to nothing, since a statement. */
export function cutsLeft(before: KadrelDocument, after: KadrelDocument): string[] {
  return tracedIn(before).flatMap((id) => {
    const [was, is] = [before.items[id]!.traced!, after.items[id]];
    if (!is) return [];
    if (is.traced?.lost && !was.lost) return [`${is.name} stays as it was: nothing is cut there any more.`];
    if (is.traced || !hasNoSource(after, was)) return [];
    return [`${is.name} stays as it is now: what it was cut from is gone.`];
  });
}

/** Asks about the document as the statement has left it so far. */
const askingOf =
  (context: VerbContext, items: ChangedItems): VerbContext['ask'] =>
  (question: Question) =>
    context.ask({ ...question, items } as never);

/** Whether anything has changed of what it is cut from, or of what that stands in. What is gone has changed. */
function isStale(now: KadrelDocument, traced: Part['traced'], fresh: ReadonlySet<ItemId>): boolean {
  if (!traced) return false;
  return sourcesOf(traced).some(
    (id) =>
      !now.items[id] ||
      lineage(now, id).some((above) => fresh.has(above)) ||
      withAllNeeded(now, standingAbove(now, id)).some((item) => fresh.has(item.id)),
  );
}

type AnyTraced = NonNullable<Part['traced']>;

const sourcesOf = (traced: AnyTraced): readonly ItemId[] =>
  traced.by === 'section' ? [traced.section, traced.through] : traced.parts;

function hasNoSource({ items }: KadrelDocument, traced: AnyTraced): boolean {
  const gone = sourcesOf(traced).filter((id) => !items[id]);
  return traced.by === 'section' ? gone.length > 0 : gone.length === traced.parts.length;
}

/** What an item has become part of, as by a subtraction; groups are none of that. */
const standingAbove = (document: KadrelDocument, id: ItemId): ItemId =>
  lineage(document, id).find((above) => !isGroup(document.items[above]!)) ?? id;

/** A kept cut goes along with its section plane, unless it is locked or was moved itself. */
function moveAlong(before: KadrelDocument, draft: KadrelDocument, traced: readonly ItemId[]): void {
  for (const id of traced) {
    const part = draft.items[id]!;
    if (part.locked || part.traced?.by !== 'section' || !draft.items[part.traced.section]) continue;
    const { section } = part.traced;
    const [from, to] = [worldFromPart(before, section), worldFromPart(draft, section)];
    const stood = worldFromPart(before, id);
    if (isSamePose(from, to) || !isSamePose(stood, worldFromPart(draft, id))) continue;
    placePart(draft, part, chain(motionBetween(from, to), stood));
  }
}

function retrace(following: Following, part: Part): void {
  const traced = part.traced!;
  if (hasNoSource(following.draft, traced)) {
    delete part.traced;
    return;
  }
  try {
    const isCut =
      traced.by === 'section' ? retraceCut(following, part, traced) : retraceSlices(following, part, traced);
    if (isCut) delete traced.lost;
    else traced.lost = true;
  } catch (error) {
    // Where no kernel is, or what is cut cannot be built, they stay as they are.
    if (!(error instanceof Unanswerable)) throw error;
  }
}

/** Whether something is cut. What is hidden is not cut now, and its cut stays as it was. */
function retraceCut({ draft, context }: Following, part: Part, traced: TracedOf<'section'>): boolean {
  if (!lineage(draft, traced.through).every((id) => draft.items[id]!.visible)) return !traced.lost;
  const found = context.ask<'outlines'>({ ask: 'outlines', part: traced.section });
  const through = standingAbove(draft, traced.through);
  const paths = found.find(({ item }) => item === through)?.paths ?? [];
  return paths.length > 0 && redraw(part, paths);
}

/** Other curves in the place of those that a profile has. */
function redraw({ recipe: { base } }: Part, paths: readonly DrawnPath[]): true {
  if (base.kind !== 'profile' || base.figure.kind !== 'paths') return true;
  const text = JSON.stringify(paths);
  if (JSON.stringify(base.figure.paths) !== text)
    base.figure.paths = JSON.parse(text) as typeof base.figure.paths;
  return true;
}

/** Whether something is cut. Slices are counted anew: further ones come in after the last, and those beyond the end go. */
function retraceSlices(following: Following, group: Part, traced: TracedOf<'slices'>): boolean {
  const { draft, context } = following;
  const there = traced.parts.filter((id) => draft.items[id]);
  const parts = [...new Set(there.map((id) => standingAbove(draft, id)))];
  const plane: Pose = { turn: [...traced.plane.turn] as unknown as Turn, shift: [...traced.plane.shift] };
  const { pitch, count, at } = traced;
  const heights = layersOf({ items: parts, plane, pitch, count, at }, context);
  if (isRefusal(heights)) return false;
  const cuts = context
    .ask<'slices'>({ ask: 'slices', parts, plane, heights })
    .map((cut) => cut.flatMap(({ paths }) => paths));
  if (cuts.every((paths) => paths.length === 0)) return false;
  const had = traced.layers;
  traced.parts = there;
  traced.layers = heights.map((height, i) => ({
    height,
    item: layerAt(following, group, { had: had[i], plane, height, paths: cuts[i]! }),
  }));
  for (const { item } of had.slice(heights.length)) dropSlice(draft, group, item);
  return true;
}

interface Layer {
  readonly had: TracedOf<'slices'>['layers'][number] | undefined;
  readonly plane: Pose;
  readonly height: number;
  readonly paths: readonly DrawnPath[];
}

/** The profile of a layer: the one that it has, another, or none. What a person has taken away stays away. */
function layerAt(following: Following, group: Part, { had, plane, height, paths }: Layer): ItemId | null {
  const { draft } = following;
  const item = had?.item ?? null;
  if (item !== null && !draft.items[item]) return item;
  if (paths.length === 0) return dropSlice(draft, group, item);
  if (item === null) return newSlice(following, group, { plane, height, paths });
  const part = draft.items[item]!;
  redraw(part, paths);
  const rise = height - had!.height;
  if (rise !== 0)
    part.placement.origin = shiftedBy(part.placement.origin, scale(column(plane.turn, 2), rise));
  return item;
}

/** In the frame of the group, which was the world's when the slices were made. */
function newSlice(
  { draft, context }: Following,
  group: Part,
  { plane, height, paths }: Pick<Layer, 'plane' | 'height' | 'paths'>,
): ItemId {
  const there = chain(plane, { turn: NO_TURN, shift: [0, 0, height] });
  const id = context.newId();
  const { colour, snappable } = group;
  draft.items[id] = {
    id,
    kind: 'part',
    name: freeName(draft, `Slice ${childrenOf(group).length + 1}`),
    parent: group.id,
    order: nextOrder(draft),
    colour,
    visible: true,
    locked: false,
    snappable,
    placement: { origin: [...roundPoint(there.shift)], turn: degreesOf(there) },
    datum: 'own',
    recipe: {
      base: { kind: 'profile', figure: { kind: 'paths', paths: JSON.parse(JSON.stringify(paths)) as [] } },
      steps: [],
    },
  };
  membersOf(group).push(id);
  return id;
}

/** A slice through nothing goes, unless something is made from it or it is the last of its group. */
function dropSlice(draft: KadrelDocument, group: Part, id: ItemId | null): ItemId | null {
  if (id === null || !draft.items[id]) return null;
  const members = membersOf(group);
  const isUsed = Object.values(draft.items).some(
    ({ recipe }) =>
      referencesIn(recipe).includes(id) || (recipe.base.kind === 'link' && recipe.base.to === id),
  );
  if (isUsed || members.length < 2 || !members.includes(id)) return id;
  members.splice(members.indexOf(id), 1);
  delete draft.items[id];
  return null;
}

const membersOf = ({ recipe: { base } }: Part): ItemId[] => (base.kind === 'group' ? base.members : []);
