/** Points of a drawing that do not lie in its plane: their feet are taken, and that is reported. */
import { vectorOf } from '../document/items.ts';
import type { KadrelDocument, NumVector } from '../document/schema.ts';
import { carryBack, type Pose } from '../space/pose.ts';
import type { Vec3 } from '../space/vector.ts';
import { formatLengthWithUnit } from '../quantity/format.ts';
import type { Verb } from './declare.ts';
import type { Typed } from './resolving.ts';
import { wordBlank } from './sentence.ts';

/** Farther off than this (mm) is no noise of typed numbers or of the plane's own axes. */
const IN_PLANE_MM = 1e-9;

/** A sentence for each blank whose points stand off the plane that is drawn on. */
export function offPlaneNotes(
  { blanks, group, id }: Verb,
  values: Readonly<Record<string, unknown>>,
  statement: { readonly typed: Typed; readonly document: KadrelDocument },
): string[] {
  const plane = blanks.on;
  if (group !== 'draw' || plane?.type !== 'plane' || id === 'plane') return [];
  const { typed, document } = statement;
  const name = wordBlank(plane, typed.on ?? plane.default, document);
  return Object.entries(blanks).flatMap(([key, blank]) => {
    // What nobody chose may stand where it likes.
    const said = typed[key];
    if (said === undefined || JSON.stringify(said) === JSON.stringify(blank.default)) return [];
    const off = pointsOf(values[key]).reduce((max, point) => farther(max, point, values.on as Pose), 0);
    if (Math.abs(off) <= IN_PLANE_MM) return [];
    const size = formatLengthWithUnit(Math.abs(off), document.scene);
    return [`“${blank.label}” stands ${size} off ${name}: its foot there is taken.`];
  });
}

function farther(max: number, point: Vec3, plane: Pose): number {
  const off = carryBack(plane, point)[2];
  return Math.abs(off) > Math.abs(max) ? off : max;
}

/** The points of a resolved point or path. */
function pointsOf(value: unknown): Vec3[] {
  if (isTriple(value)) return [vectorOf(value)];
  if (typeof value !== 'object' || value === null || !('points' in value)) return [];
  const { points } = value as { points: readonly unknown[] };
  return points.filter(isTriple).map(vectorOf);
}

const isTriple = (value: unknown): value is NumVector =>
  Array.isArray(value) &&
  value.length === 3 &&
  value.every((n) => typeof n === 'number' || (typeof n === 'object' && n !== null && 'formula' in n));
