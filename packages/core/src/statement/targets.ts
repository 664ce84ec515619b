/** What is measured, as typed or picked: `Lid`, `Lid: top`, `0, 0, 10`, or a pick. */
import type { Target } from '../document/fit.ts';
import type { KadrelDocument } from '../document/schema.ts';
import type { TieRead } from '../document/sheet.ts';
import { partNamed } from '../document/items.ts';
import { nameFit } from '../document/naming.ts';
import { solidNamed } from '../snapping/solidNamed.ts';
import type { ShapeFeatures } from '../snapping/shape.ts';
import type { NamedPoint } from '../snapping/locate.ts';
import type { Vec3 } from '../space/vector.ts';
import { isRefusal, refuse, type Refusal } from './declare.ts';

/** What reads a point, and a place of a part by its names. */
interface TargetReaders {
  readonly document: KadrelDocument;
  readonly point: (given: unknown) => Vec3 | Refusal;
  readonly named: (given: NamedPoint) => TieRead | Refusal;
  /** The features of the solid that is meant, if it is built. */
  readonly features: (given: NamedPoint) => ShapeFeatures | undefined;
}

type Given = Partial<NamedPoint>;

export function readTarget(given: unknown, readers: TargetReaders): Target | Refusal {
  const target = typeof given === 'string' ? ofText(given, readers.document) : given;
  if (typeof target !== 'object' || target === null || Array.isArray(target) || !('on' in target)) {
    const point = readers.point(target);
    return isRefusal(point) ? point : { point };
  }
  const { on, at } = target as Given;
  return typeof at === 'string' && at !== ''
    ? placeOf(target as NamedPoint, readers)
    : wholeOf(String(on), target as Given, readers);
}

/** A name, a name and a place, or numbers. */
function ofText(text: string, document: KadrelDocument): unknown {
  if (partNamed(document, text.trim())) return { on: text.trim() };
  const colon = text.lastIndexOf(':');
  if (colon > 0) return { on: text.slice(0, colon).trim(), at: text.slice(colon + 1).trim() };
  const numbers = text.split(',').map((one) => one.trim());
  return numbers.length === 3 ? numbers : { on: text.trim() };
}

function wholeOf(name: string, { member, of }: Given, { document }: TargetReaders): Target | Refusal {
  const part = partNamed(document, name);
  if (!part) return refuse('unknown-part', { of: name });
  const which = {
    ...(member === undefined || member === '' ? {} : { member: String(member) }),
    ...(of ? { of } : {}),
  };
  if (which.member === undefined) return { part: part.id };
  const solid = solidNamed(document, part.id, which);
  return isRefusal(solid) ? solid : { part: part.id, member: which.member };
}

/** Faces that are neither flat nor round have no axis and can be measured all the same. */
function placeOf(given: NamedPoint, readers: TargetReaders): Target | Refusal {
  const read = readers.named(given);
  if (!isRefusal(read)) return read.tie.named ?? { point: read.tie.point };
  const features = readers.features(given);
  const { document } = readers;
  const isThere = features?.faceName.some((name) => nameFit(given.at, features.names[name]!, document) > 0);
  const part = partNamed(document, given.on);
  if (!isThere || !part) return read;
  const { at, near, member } = given;
  return {
    part: part.id,
    at,
    ...(near ? { near } : {}),
    ...(member === undefined || member === '' ? {} : { member: String(member) }),
  };
}
