/** The plane that one draws on, and what clicks add to a figure. */
import {
  worldFromPart,
  carryBack,
  isRefusal,
  resolveOne,
  verbNamed,
  type KadrelDocument,
  type Pose,
  type Vec2,
  type Vec3,
  type World,
} from '@kadrel/core';
import { exactMm, type Statement } from './statement.ts';

/** Verbs whose points lie in the plane of the profile that they change. */
const EDITING: ReadonlySet<string> = new Set(['point', 'repoint', 'corner', 'trim', 'extend', 'split']);

/** The plane of the statement in hand, where it draws. */
export function drawingPlane(
  statement: Statement | null,
  document: KadrelDocument,
  world: World,
): Pose | undefined {
  const verb = statement ? verbNamed(statement.verb) : undefined;
  const edited = verb && EDITING.has(verb.id) ? (statement!.typed.profile as string | undefined) : undefined;
  if (edited !== undefined && document.items[edited]) return worldFromPart(document, edited);
  if (!statement || !verb || !drawsOn(verb.id)) return undefined;
  const plane = resolveOne(verb, 'on', statement.typed, { document, world }) as Pose | undefined;
  return plane && !isRefusal(plane) ? plane : undefined;
}

/** Whether a verb draws on a plane, which those that follow draw on too. */
export function drawsOn(verb: string): boolean {
  const { on } = verbNamed(verb)!.blanks;
  return on?.type === 'plane' && !on.once;
}

/** Whether clicks add points to a blank, one after another. */
export function gathersPoints({ verb }: Pick<Statement, 'verb'>, blank: string): boolean {
  const { type, columns } = verbNamed(verb)!.blanks[blank]!;
  if (type === 'rows') return columns?.x !== undefined && columns.y !== undefined;
  return type === 'path' && drawsOn(verb);
}

/** The statement with one more point. The first one of a traverse is where it begins. */
export function withPoint(statement: Statement, blank: string, point: Vec3, plane: Pose): Statement {
  const { type } = verbNamed(statement.verb)!.blanks[blank]!;
  const present = Array.isArray(statement.typed[blank]) ? (statement.typed[blank] as unknown[]) : [];
  const world = point.map(exactMm);
  if (type === 'path')
    return { ...statement, typed: { ...statement.typed, [blank]: [...present, world] }, refusal: null };
  if (present.length === 0 && !statement.held.has('start'))
    return {
      ...statement,
      typed: { ...statement.typed, at: world },
      held: new Set([...statement.held, 'start']),
      refusal: null,
    };
  const [x, y] = onPlane(plane, point);
  const row = { x: exactMm(x), y: exactMm(y) };
  return { ...statement, typed: { ...statement.typed, [blank]: [...present, row] }, refusal: null };
}

/** A point of the world on a plane, in its frame. */
export function onPlane(plane: Pose, point: Vec3): Vec2 {
  const [x, y] = carryBack(plane, point);
  const clean = (n: number) => Number(n.toFixed(9)) + 0;
  return [clean(x), clean(y)];
}
