/** Edges and faces that a statement in hand has gathered: what a click adds, and what of them is shown. */
import {
  MEETING,
  add,
  carry,
  carryBack,
  curvesChosen,
  distance,
  isChosenType,
  isRefusal,
  partNamed,
  pointsOfCurve,
  resolveOne,
  scale,
  subtract,
  valueOf,
  verbNamed,
  type Box,
  type ChosenEdge,
  type ChosenFace,
  type ChosenPlace,
  type ItemId,
  type KadrelDocument,
  type Num,
  type Refusal,
  type ShapeFeatures,
  type GivenPlane,
  type Vec3,
  type World,
} from '@kadrel/core';
import type { Statement } from './statement.ts';
import { wherever } from './wherever.ts';

/** What is picked, as it stands in the blank. */
export interface PickedPlace {
  readonly on: ItemId;
  readonly at: string;
  readonly near?: readonly number[];
}

/** What is gathered in a blank. */
export const listIn = (value: unknown): readonly unknown[] =>
  value === undefined || value === '' ? [] : Array.isArray(value) ? (value as unknown[]) : [value];

/** Adds what is picked, or takes it out again. What was typed as a rule stays. */
export function toggled(value: unknown, picked: PickedPlace | string): unknown[] {
  const list = listIn(value);
  const without = list.filter((one) => !isSamePlace(one, picked));
  return without.length < list.length ? without : [...list, picked];
}

function isSamePlace(a: unknown, b: PickedPlace | string): boolean {
  if (typeof a === 'string' || typeof b === 'string') return a === b;
  const { at, near } = a as PickedPlace;
  // Of several edges of one name the point tells which; on a face it only tells where it was clicked.
  return at === b.at && (!at.includes(MEETING) || isSamePoint(near, b.near));
}

const SAME_MM = 1e-6;
const isSamePoint = (a?: readonly number[], b?: readonly number[]) =>
  a === b || (a !== undefined && b !== undefined && a.every((n, i) => Math.abs(n - b[i]!) < SAME_MM));

/** What is shown of them, in the world. */
export interface ShownChoice {
  /** 6·L: ends of pieces of edges, mm. */
  readonly lines: Float32Array;
  readonly faces: readonly string[];
  readonly part: ItemId;
}

/** How much larger than the part the square is shown that stands for a plane. */
const PLANE_MARGIN = 0.6;

/** What a statement has gathered, or the square in which it cuts its first part; undefined where there is nothing to show. */
export const shownOf = (
  statement: Pick<Statement, 'verb' | 'typed'>,
  document: KadrelDocument,
  world: World,
): ShownChoice | undefined =>
  shownChoice(statement, document, world) ?? shownPlane(statement, document, world);

function shownPlane(
  { verb, typed }: Pick<Statement, 'verb' | 'typed'>,
  document: KadrelDocument,
  world: World,
): ShownChoice | undefined {
  const { group, blanks } = verbNamed(verb)!;
  if (group !== 'cut' || !blanks.plane) return undefined;
  const [part] = listIn(typed.parts) as ItemId[];
  const read = (blank: string) => resolveOne(verbNamed(verb)!, blank, typed, { document, world });
  const [plane, at] = [
    read('plane') as GivenPlane | Refusal | undefined,
    read('at') as Num | Refusal | undefined,
  ];
  const box = part === undefined || !document.items[part] ? undefined : world.ask({ ask: 'box', part });
  if (!plane || at === undefined || isRefusal(plane) || isRefusal(at) || !box) return undefined;
  const { min, max } = box as Box;
  const middle = carryBack(plane, scale(add(min, max), 0.5));
  const reach = PLANE_MARGIN * Math.hypot(...subtract(max, min));
  const corners = [
    [-reach, -reach],
    [reach, -reach],
    [reach, reach],
    [-reach, reach],
  ].map(([x, y]) => carry(plane, [middle[0] + x!, middle[1] + y!, valueOf(at)]));
  const lines = corners.flatMap((corner, i) => [...corner, ...corners[(i + 1) % 4]!]);
  return { part: part!, lines: Float32Array.from(lines), faces: [] };
}

/** Undefined where the statement gathers none, or what stands there means none. */
function shownChoice(
  { verb, typed }: Pick<Statement, 'verb' | 'typed'>,
  document: KadrelDocument,
  world: World,
): ShownChoice | undefined {
  const gathered = Object.entries(verbNamed(verb)!.blanks).filter(
    ([id, { type }]) => isChosenType(type) && listIn(typed[id]).length > 0,
  );
  const part = typeof typed.part === 'string' ? partNamed(document, typed.part)?.id : undefined;
  if (gathered.length === 0 || part === undefined) return undefined;
  const chosen = gathered.flatMap(([id]) => {
    const read = resolveOne(verbNamed(verb)!, id, typed, { document, world });
    if (read === undefined || isRefusal(read)) return [];
    // What a rule means for a step that stands is not to be seen on what the step has made.
    const { former } = verbNamed(verb)!.blanks[id]!;
    return (read as Chosen[]).filter((one) => !former || 'edge' in one || 'at' in one || 'face' in one);
  });
  return choiceOf({ part, chosen }, document, world);
}

/** Faces, edges and corners of a part as they are shown; undefined while the part has no form. */
export function choiceOf(
  { part, chosen }: { readonly part: ItemId; readonly chosen: readonly Chosen[] },
  document: KadrelDocument,
  world: World,
): ShownChoice | undefined {
  const shape = world.shapeOf(part);
  if (isRefusal(shape)) return undefined;
  const { snaps } = shape;
  const runs = [
    ...curvesChosen(snaps, chosen.flatMap(edgesOf)).map((curve) => pointsOfCurve(snaps, curve)),
    ...chosen.flatMap((one) => stubsOf(snaps, one)),
  ];
  const lines = runs.flatMap((run) => run.slice(1).flatMap((to, i) => [...run[i]!, ...to]));
  return { part, lines: wherever(document, part, lines), faces: chosen.flatMap(faceOf) };
}

type Chosen = ChosenEdge | ChosenFace | ChosenPlace;

/** A face by its name, also as a place. */
function faceOf(one: Chosen): string[] {
  if ('face' in one) return [one.face];
  return 'at' in one && !one.at.includes(MEETING) ? [one.at] : [];
}

/** Edges as a step means them. */
function edgesOf(one: Chosen): ChosenEdge[] {
  if ('face' in one) return [];
  if (!('at' in one)) return [one];
  return countOf(one.at) === 2 ? [{ edge: one.at, ...(one.near ? { near: one.near } : {}) }] : [];
}

const countOf = (name: string) => name.split(MEETING).length;

/** A corner is shown by the beginnings of the edges that end in it, in the part’s own frame. */
function stubsOf(features: ShapeFeatures, one: Chosen): Vec3[][] {
  if (!('at' in one) || countOf(one.at) < 3) return [];
  const meeting = one.at.split(MEETING);
  const corners = cornersCalled(features, one);
  const runs = [...features.curveName.keys()]
    .filter((c) => features.names[features.curveName[c]!]!.split(MEETING).every((f) => meeting.includes(f)))
    .flatMap((c) => {
      const points = pointsOfCurve(features, c);
      return [points, [...points].reverse()];
    });
  return runs.filter(([first]) => corners.some((at) => distance(at, first!) < SAME_MM)).map(beginningOf);
}

/** Of several corners of one name the one that is meant, or all. */
export function cornersCalled(
  { points, pointName, names }: ShapeFeatures,
  { at, near }: ChosenPlace,
): Vec3[] {
  const all = [...pointName.keys()]
    .filter((i) => names[pointName[i]!] === at)
    .map((i): Vec3 => [points[3 * i]!, points[3 * i + 1]!, points[3 * i + 2]!]);
  if (!near || all.length < 2) return all;
  const gaps = all.map((corner) => distance(corner, near));
  return [all[gaps.indexOf(Math.min(...gaps))]!];
}

/** A quarter of an edge. */
function beginningOf(points: readonly Vec3[]): Vec3[] {
  const [a, b] = points;
  if (points.length === 2) return [a!, add(a!, scale(subtract(b!, a!), 1 / 4))];
  return points.slice(0, Math.ceil(points.length / 4) + 1);
}
