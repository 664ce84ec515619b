/** Edges and faces that a statement in hand has gathered: what a click adds, and what of them is shown. */
import {
  MEETING,
  add,
  carry,
  carryBack,
  curvesChosen,
  isRefusal,
  partNamed,
  pointsOfCurve,
  resolveOne,
  scale,
  subtract,
  valueOf,
  verbNamed,
  worldFromPart,
  type Box,
  type ChosenEdge,
  type ChosenFace,
  type ItemId,
  type KadrelDocument,
  type Num,
  type Refusal,
  type ToldPlane,
  type World,
} from '@kadrel/core';
import type { Statement } from './statement.ts';

/** What is picked, as it stands in the blank. */
export interface PickedPlace {
  readonly on: ItemId;
  readonly at: string;
  readonly near?: readonly number[];
}

/** The blank of a verb that gathers edges or faces. */
export function chosenBlank(
  verb: string,
): { readonly id: string; readonly type: 'edges' | 'faces' } | undefined {
  for (const [id, { type }] of Object.entries(verbNamed(verb)!.blanks))
    if (type === 'edges' || type === 'faces') return { id, type };
  return undefined;
}

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
  if (verbNamed(verb)?.group !== 'cut') return undefined;
  const [part] = listIn(typed.parts) as ItemId[];
  const read = (blank: string) => resolveOne(verbNamed(verb)!, blank, typed, document, world);
  const [plane, at] = [
    read('plane') as ToldPlane | Refusal | undefined,
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
  const blank = chosenBlank(verb);
  const part = blank && typeof typed.part === 'string' ? partNamed(document, typed.part)?.id : undefined;
  if (!blank || part === undefined || listIn(typed[blank.id]).length === 0) return undefined;
  const chosen = resolveOne(verbNamed(verb)!, blank.id, typed, document, world);
  const shape = world.shapeOf(part);
  if (chosen === undefined || isRefusal(chosen) || isRefusal(shape)) return undefined;
  if (blank.type === 'faces')
    return { part, lines: new Float32Array(), faces: (chosen as ChosenFace[]).map(({ face }) => face) };
  const pose = worldFromPart(document, part);
  const lines = curvesChosen(shape.snaps, chosen as ChosenEdge[]).flatMap((curve) => {
    const points = pointsOfCurve(shape.snaps, curve).map((at) => carry(pose, at));
    return points.slice(1).flatMap((to, i) => [...points[i]!, ...to]);
  });
  return { part, lines: Float32Array.from(lines), faces: [] };
}
