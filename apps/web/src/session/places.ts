/** Faces, edges and corners of the one selected part: what of them is said and shown, and what verbs take of them. */
import {
  EDGE_RULES,
  MEETING,
  isChosenType,
  isEdgeRule,
  isRun,
  onFrom,
  isRefusal,
  readSelected,
  verbNamed,
  type ChosenEdge,
  type ChosenPlace,
  type ChosenType,
  type ItemId,
  type KadrelDocument,
  type ShapeFeatures,
  type Typed,
  type Vec3,
  type World,
} from '@kadrel/core';
import { factsOfPart, type Built } from './built.ts';
import { choiceOf, cornersCalled, toggled, type PickedPlace, type ShownChoice } from './chosen.ts';
import { edgeInto, faceInto, wordsOfFace } from './faces.ts';
import type { Selecting } from './manner.ts';

/** As it stands in the blank of a verb: picked, or written, also as a rule. */
export type SelectedPlace = PickedPlace | string;

/** Faces, edges and corners that are selected of one part. */
export interface SelectedPlaces {
  readonly part: ItemId;
  readonly list: readonly SelectedPlace[];
}

const SORTS = ['rule', 'face', 'edge', 'corner'] as const;
type Sort = (typeof SORTS)[number];

/** Whether it is a face, an edge or a corner. */
export function sortOf(one: SelectedPlace): Sort {
  // What was picked is called as it is, but for what runs on from it.
  if (typeof one === 'string' ? isEdgeRule(one) : isRun(one.at)) return 'rule';
  const count = nameOfPlace(one).split(MEETING).length;
  return count === 1 ? 'face' : count === 2 ? 'edge' : 'corner';
}

/** The name of a place, without the point that tells it from others. */
export const nameOfPlace = (one: SelectedPlace) => (typeof one === 'string' ? one : one.at);

/** The names of those that are faces. */
export const facesIn = ({ list }: SelectedPlaces): string[] =>
  list.filter((one) => sortOf(one) === 'face').map(nameOfPlace);

/** What is selected of a part after a click or a region has taken places of it; null where nothing is. */
export function placesWith(
  before: SelectedPlaces | null,
  { part, list: taken }: SelectedPlaces,
  how: Selecting,
): SelectedPlaces | null {
  const kept = before?.part === part ? before.list : [];
  const has = (of: readonly SelectedPlace[], one: SelectedPlace) => toggled(of, one).length < of.length;
  const without = kept.filter((one) => !has(taken, one));
  const fresh = taken.filter((one) => !has(kept, one));
  const list = {
    replace: taken,
    add: [...kept, ...fresh],
    toggle: [...without, ...fresh],
    'take away': without,
  }[how];
  return list.length === 0 ? null : { part, list };
}

/** Edges by their names or by a rule. */
export function edgesIn(
  { part, list }: SelectedPlaces,
  document: KadrelDocument,
  world: World,
): ChosenEdge[] {
  const edges = list.filter((one) => ['edge', 'rule'].includes(sortOf(one)));
  const read = readSelected(edges, namingOf(part, document, world));
  if (isRefusal(read)) return [];
  return read.map((one) => ('at' in one ? { edge: one.at, ...(one.near ? { near: one.near } : {}) } : one));
}

/** Undefined where what was selected is no longer there. */
export function shownPlaces(
  { part, list }: SelectedPlaces,
  document: KadrelDocument,
  world: World,
): ShownChoice | undefined {
  if (!document.items[part]) return undefined;
  const read = readSelected(list, namingOf(part, document, world));
  return isRefusal(read) ? undefined : choiceOf({ part, chosen: read }, document, world);
}

const namingOf = (part: ItemId, document: KadrelDocument, world: World) => ({
  name: document.items[part]!.name,
  document,
  features: () => {
    const shape = world.shapeOf(part);
    return isRefusal(shape) ? shape : shape.snaps;
  },
});

/** Whether the part still has all of them, as far as it is built: a statement may have taken them away. */
export function areThere(
  { part, list }: SelectedPlaces,
  { document, built }: { readonly document: KadrelDocument; readonly built: Built },
): boolean {
  const item = document.items[part];
  const snaps = item && factsOfPart({ built }, part)?.snaps;
  return !snaps || !isRefusal(readSelected(list, { name: item.name, document, features: () => snaps }));
}

/** “top”, “front · top”, or how many of what. */
export function wordsOfPlaces({ list }: SelectedPlaces, document: KadrelDocument): string {
  const [only, ...others] = list;
  if (only !== undefined && others.length === 0) return wordsOfPlace(only, document);
  return SORTS.flatMap((sort) => {
    const count = list.filter((one) => sortOf(one) === sort).length;
    return count === 0 ? [] : [`${count} ${sort}${count === 1 ? '' : 's'}`];
  }).join(', ');
}

/** For each edge among what is chosen: all that run on from it. They stand for it once they are chosen. */
export const runsFrom = (list: readonly SelectedPlace[]): { run: SelectedPlace; from: SelectedPlace }[] =>
  list
    .filter((one) => sortOf(one) === 'edge')
    .map((from) => ({
      from,
      run: typeof from === 'string' ? onFrom(from) : { ...from, at: onFrom(from.at) },
    }));

/** A place in words. */
export function wordsOfPlace(one: SelectedPlace, document: KadrelDocument): string {
  const name = nameOfPlace(one);
  const isRule = sortOf(one) === 'rule';
  if (isRule && name in EDGE_RULES) return EDGE_RULES[name as keyof typeof EDGE_RULES];
  const [, rule = '', of = name] = (isRule && /^((?:around|on from) )(.+)$/.exec(name)) || [];
  const words = of.split(MEETING).map((face) => wordsOfFace(face, document));
  return `${rule && 'all edges '}${rule}${words.join(' · ')}`;
}

/** More names than these are not read one by one: a rule, or a click, is quicker. */
const MAX_NAMES = 200;

/** What can be named of a solid. */
export function namesOfPlaces({ names, faceName, curveName, pointName }: ShapeFeatures) {
  const of = (indices: Uint32Array, isMeant: (count: number) => boolean) =>
    [...new Set(indices)]
      .map((i) => names[i]!)
      .filter((name) => name !== '' && isMeant(new Set(name.split(MEETING)).size))
      .slice(0, MAX_NAMES);
  return {
    faces: of(faceName, () => true),
    edges: of(curveName, (count) => count === 2),
    corners: of(pointName, (count) => count > 2),
  };
}

/** Where the one selected corner is, in the part’s own frame, mm. */
export function cornerAt(features: ShapeFeatures, list: readonly SelectedPlace[]): Vec3 | undefined {
  const [only, ...others] = list;
  if (only === undefined || others.length > 0 || sortOf(only) !== 'corner') return undefined;
  return cornersCalled(features, typeof only === 'string' ? { at: only } : (only as ChosenPlace))[0];
}

/** Where edges are gathered, a face stands for those round it. */
function takenAs(one: SelectedPlace, type: ChosenType): SelectedPlace[] {
  const sort = sortOf(one);
  if (type === 'edges' && sort === 'face') return [`around ${nameOfPlace(one)}`];
  return TAKEN[type].includes(sort) ? [one] : [];
}
const TAKEN: Readonly<Record<ChosenType, readonly Sort[]>> = {
  edges: ['edge', 'rule'],
  faces: ['face'],
  places: ['face', 'edge', 'corner'],
};

/** What a verb takes of what is selected: all that it gathers, or the one face or edge that it asks for. */
export function placesInto(
  verbId: string,
  state: {
    readonly places: SelectedPlaces | null;
    readonly document: KadrelDocument;
    readonly built: Built;
  },
): Typed {
  const { places, built } = state;
  if (!places || !areThere(places, state)) return {};
  const gathered = Object.entries(verbNamed(verbId)!.blanks).flatMap(([id, { type, rare }]) => {
    // What is seldom wanted is filled by hand.
    if (!isChosenType(type) || rare) return [];
    const fitting = places.list.flatMap((one) => takenAs(one, type));
    return fitting.length === 0 ? [] : [[id, fitting] as const];
  });
  if (gathered.length > 0) return { part: places.part, ...Object.fromEntries(gathered) };
  const [only, ...others] = places.list;
  if (only === undefined || others.length > 0) return {};
  const of = { part: places.part, name: nameOfPlace(only), built };
  return sortOf(only) === 'face'
    ? faceInto(verbId, of)
    : sortOf(only) === 'edge'
      ? edgeInto(verbId, only)
      : {};
}
