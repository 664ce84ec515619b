/** Carrying statements out: a verb with its blanks as typed, the same for screen and headless. */
import { current, isDraft } from 'immer';
import { docksInOrder } from '../document/dock.ts';
import { changedItems } from '../document/changed.ts';
import { handIndexOn, itemIndex } from '../document/itemIndex.ts';
import { isWhole, topOf, visibleParts, withAllBelow, worldFromPart } from '../document/items.ts';
import { MAX_MEMBERS } from '../recipes/numbers.ts';
import type { ItemId, KadrelDocument } from '../document/schema.ts';
import { change, type Change } from '../history/edit.ts';
import { cleanJson } from '../history/json.ts';
import { placedOf, solidCount } from '../patterns/placed.ts';
import { carryBox, type Box } from '../space/box.ts';
import { isQuarterTurn } from '../space/pose.ts';
import type { Vec3 } from '../space/vector.ts';
import { outwardAt, wayOutAt } from '../snapping/landing.ts';
import { castOnScene, onSurface } from '../snapping/raycast.ts';
import { snapScene, type SnapScene } from '../snapping/scene.ts';
import {
  Unanswerable,
  Wanting,
  isRefusal,
  refuse,
  type Outcome,
  type Question,
  type Refusal,
  type Replies,
  type Surface,
  type Verb,
  type VerbContext,
} from './declare.ts';
import { docksByNumbers, docksOn } from '../docks/places.ts';
import { measuresUsed } from '../document/variables.ts';
import { jointsFollow, type Changing } from '../docks/following.ts';
import type { StandingDock } from '../questions/question.ts';
import { stepsFollow, dependenceFault } from './following.ts';
import { cutsFollow, cutsLeft } from './cutsFollow.ts';
import { measuresFollow } from './measuresFollow.ts';
import { offPlaneNotes } from './offPlane.ts';
import { resolveStatement } from './resolve.ts';
import { quantityReader, type Typed } from './resolving.ts';
import { wordStatement } from './sentence.ts';
import type { World } from './world.ts';

export interface Performed extends Change {
  readonly outcome: Outcome;
  readonly title: string;
  /** What should be known of how the statement was understood. */
  readonly notes: readonly string[];
}

/** Carries the statement out on a copy of the document. Nothing happens to `document` either way. */
export function perform(
  verb: Verb,
  given: Typed,
  document: KadrelDocument,
  world: World,
): Performed | Refusal {
  const typed = cleanJson(given);
  const values = resolveStatement(verb, typed, document, world);
  if (isRefusal(values)) return values;
  const context = contextOf(document, world);
  let outcome: Outcome | Refusal = {};
  let done: Change;
  try {
    done = change(document, (draft) => {
      outcome = verb.apply(draft, values as never, context);
      if (isRefusal(outcome)) return;
      outcome = allFollows(document, draft, { context, isPreview: world.isPreview }) ?? outcome;
    });
  } catch (error) {
    if (error instanceof Unanswerable) return error.refusal;
    if (!(error instanceof Wanting)) throw error;
    return { ...refuse('wanting', {}), wants: error.question };
  }
  if (isRefusal(outcome)) return outcome;
  const changed = changedIds(document, done);
  const fault =
    nameFault(verb, values, document, { after: done.document, changed, outcome }) ??
    sizeFault(done.document, changed) ??
    dependenceFault(document, done);
  if (fault) return fault;
  const performed = {
    ...done,
    outcome,
    notes: [...offPlaneNotes(verb, values, { typed, document }), ...cutsLeft(document, done.document)],
    title: wordStatement(verb, { ...defaultsOf(verb), ...typed }, done.document, document),
  };
  // A preview begins with the same document again at the next move of the pointer.
  if (!world.isPreview) handIndexOn(document.items, done.document.items, changed);
  return performed;
}

/** What follows from what a verb has changed. What hangs by joints may be measured, and what is measured may carry joints. */
function allFollows(
  document: KadrelDocument,
  draft: KadrelDocument,
  { context, isPreview }: Pick<World, 'isPreview'> & { readonly context: VerbContext },
): Refusal | undefined {
  const measured = () => (isPreview ? undefined : measuresFollow(document, draft, context));
  const unmeasured = measured();
  if (unmeasured) return unmeasured;
  jointsFollow(changing(document, draft, context));
  stepsFollow(document, draft);
  const traced = () => (isPreview ? undefined : cutsFollow(document, draft, context));
  // What is measured may be made of a cut, and what is cut may go by a measure.
  return traced() ?? measured() ?? (measuresUsed(draft).length > 0 ? traced() : undefined);
}

/** What a verb may ask of the world round the document that its statement begins with. */
function contextOf(document: KadrelDocument, world: World): VerbContext {
  const read = quantityReader(document);
  const ask = <K extends Question['ask']>(question: Extract<Question, { ask: K }>): Replies[K] => {
    const reply = world.ask(question);
    if (reply === undefined) throw new Wanting(question);
    return reply as Replies[K];
  };
  const boxOf = (id: ItemId) => {
    const part = document.items[id];
    if (!part) return undefined;
    if (isWhole(document, part)) return ask<'box'>({ ask: 'box', part: id, frame: 'own' });
    const shape = world.shapeOf(id);
    return isRefusal(shape) ? undefined : shape.box;
  };
  const worldBox = (id: ItemId): Box => {
    if (isWhole(document, document.items[id]!)) return ask<'box'>({ ask: 'box', part: id });
    const pose = worldFromPart(document, id);
    const own = isQuarterTurn(pose.turn) ? boxOf(id) : undefined;
    return own ? carryBox(pose, own) : ask<'box'>({ ask: 'box', part: id });
  };
  let scene: SnapScene | undefined;
  const firstSurface = (from: Vec3, direction: Vec3, without: ReadonlySet<ItemId>) =>
    surfaceOn((scene ??= sceneOf(document, world)), { from, direction }, without);
  return {
    newId: () => world.newId(),
    read,
    boxOf,
    ask,
    worldBox,
    docksOn: (part) => docksOn(document, part, (id, variant) => world.shapeOf(id, variant)),
    docksAfter: (draft, part) =>
      docksAfter({ before: document, after: plainOf(draft), part }, { isBlind: world.isBlind, ask }),
    wayOut: (part, point) => wayOutOf({ document, world }, part, point),
    firstSurface,
  };
}

/** What held joints must know to follow. */
function changing(before: KadrelDocument, draft: KadrelDocument, context: VerbContext): Changing {
  let plain: KadrelDocument | undefined;
  const now = () => (plain ??= plainOf(draft));
  return {
    before,
    draft,
    now,
    docksOf: (which, part) => context.docksAfter(which === 'before' ? before : now(), part),
  };
}

const plainOf = (draft: KadrelDocument): KadrelDocument => (isDraft(draft) ? current(draft) : draft);

interface Carrier {
  readonly before: KadrelDocument;
  readonly after: KadrelDocument;
  readonly part: ItemId;
}

/** The docks of an item as a draft has it. */
function docksAfter(
  { before, after, part }: Carrier,
  { isBlind, ask }: Pick<World, 'isBlind'> & Pick<VerbContext, 'ask'>,
): readonly StandingDock[] {
  const doFollow = withAllBelow(after, part).some((item) => docksInOrder(item).some(({ on }) => on));
  if (!doFollow || isBlind) return docksByNumbers(after, part);
  try {
    return ask<'docks'>({ ask: 'docks', part, items: changedItems(before, after) });
  } catch (error) {
    if (error instanceof Unanswerable) return [];
    throw error;
  }
}

/** Why what was made does not have the name that was said: it is taken, or nothing was made. */
function nameFault(
  { blanks }: Verb,
  { as }: Readonly<Record<string, unknown>>,
  before: KadrelDocument,
  {
    after,
    changed,
    outcome,
  }: { readonly after: KadrelDocument; readonly changed: readonly ItemId[]; readonly outcome: Outcome },
): Refusal | undefined {
  if (typeof as !== 'string' || blanks.as?.type !== 'name' || blanks.as.replaces) return undefined;
  const made = outcome.result === undefined ? undefined : after.items[outcome.result];
  const named = itemIndex(before).named(as);
  const countIn = ({ items }: KadrelDocument, ids: readonly ItemId[]) =>
    ids.filter((id) => items[id]?.name === as).length;
  const left = named - countIn(before, changed) + countIn(after, changed);
  if (named > 0 && left > (made?.name === as ? 1 : 0)) return refuse('name-taken.part-named', { as }, 'as');
  if (made?.name === as) return undefined;
  return refuse('no-new-part', {}, 'as');
}

/** Items that a change touches. */
function changedIds(before: KadrelDocument, { document: after, patches }: Change): readonly ItemId[] {
  const paths = patches.filter(({ path }) => path[0] === 'items').map(({ path }) => path[1]);
  // All items at once may be others.
  if (paths.includes(undefined)) return Object.keys(changedItems(before, after));
  return [...new Set(paths.map(String))];
}

/** Patterns within patterns multiply: why what changed would be too many solids. */
function sizeFault(after: KadrelDocument, changed: readonly ItemId[]): Refusal | undefined {
  const there = changed.filter((id) => after.items[id]);
  for (const id of new Set(there.map((one) => topOf(after, one)))) {
    const count = solidCount(after, id);
    if (count > MAX_MEMBERS)
      return refuse('too-many.solids', { name: after.items[id]!.name, count, maxMembers: MAX_MEMBERS });
  }
  return undefined;
}

function wayOutOf(
  { document, world }: { readonly document: KadrelDocument; readonly world: World },
  part: ItemId,
  point: Vec3,
): Vec3 | undefined {
  if (isWhole(document, document.items[part]!)) return undefined;
  const shape = world.shapeOf(part);
  if (isRefusal(shape)) return undefined;
  return wayOutAt({ part, pose: worldFromPart(document, part), shape: shape.snaps }, point);
}

/** The visible parts as they stand; one that is not built has no surface to meet. */
function sceneOf(document: KadrelDocument, world: World): SnapScene {
  return snapScene(
    visibleParts(document).flatMap(({ id }) =>
      placedOf(document, id).flatMap((one) => {
        const shape = world.shapeOf(one.leaf, one);
        return isRefusal(shape) ? [] : [{ part: id, pose: one.pose, shape: shape.snaps }];
      }),
    ),
  );
}

function surfaceOn(
  scene: SnapScene,
  { from, direction }: { readonly from: Vec3; readonly direction: Vec3 },
  without: ReadonlySet<ItemId>,
): Surface | undefined {
  const ray = { from, direction };
  const hit = castOnScene(scene, ray, Infinity, (part) => !without.has(part));
  if (!hit) return undefined;
  const { point } = onSurface(hit, ray);
  const normal = outwardAt(hit.instance, hit.face, point);
  return normal && { part: hit.instance.part, point, normal };
}

export function defaultsOf(verb: Verb): Record<string, unknown> {
  return Object.fromEntries(
    Object.entries(verb.blanks)
      .filter(([, blank]) => blank.default !== undefined)
      .map(([id, blank]) => [id, blank.default]),
  );
}

/** The blank that a failure to build is reported under: the parts, where the verb has such a blank, else its first. */
export function blankToBlame({ blanks }: Verb): string {
  const ids = Object.keys(blanks);
  return ids.find((id) => blanks[id]!.type === 'parts') ?? ids[0]!;
}
