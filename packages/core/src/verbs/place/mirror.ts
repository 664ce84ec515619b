import { vectorOf, withAllBelow } from '../../document/items.ts';
import type { ItemId } from '../../document/schema.ts';
import { stretchAlong, cleanDirection, frameAlong } from '../../space/matrix.ts';
import { NO_TURN } from '../../space/pose.ts';
import { cross, length, subtract, unit, type Vec3 } from '../../space/vector.ts';
import {
  declareVerb,
  needed,
  optional,
  refuse,
  type Affine,
  type Refusal,
  type Values,
} from '../../statement/declare.ts';
import { worldDirection } from '../../statement/directions.ts';
import {
  CENTRES,
  LEAVINGS,
  centresOf,
  lockedRefusal,
  placedParts,
  withoutNested,
} from '../shared/placing.ts';
import { reshapePart } from '../shared/reshape.ts';

/** Mirrors parts at a plane. The result is a proper solid: its volume is positive and its faces look outward. */
export const mirror = declareVerb({
  id: 'mirror',
  name: 'Mirror',
  group: 'place',
  about: 'At a plane: square to an axis through the centre, on a face, or through three points.',
  words: ['flip', 'reflect', 'symmetric', 'opposite hand', 'left and right'],
  blanks: {
    parts: needed('parts', 'parts', 'What is mirrored.', { least: 1 }),
    across: needed('direction', 'across', 'The axis that the plane is square to.', { default: 'x' }),
    centre: needed('choice', 'centre', 'What the plane goes through.', { default: 'own', choices: CENTRES }),
    at: optional('point', 'centre point', 'A point of the plane.', { askedBy: ['centre', 'point'] }),
    face: optional('feature', 'face', 'A flat face that is the plane.', { catches: 'faces' }),
    a: optional('point', 'first point', 'Of a plane through three points.', { next: 'b' }),
    b: optional('point', 'second point', 'Of a plane through three points.', { next: 'c' }),
    c: optional('point', 'third point', 'Of a plane through three points.'),
    leaving: needed('choice', 'leaving', 'What stays behind.', { default: 'nothing', choices: LEAVINGS }),
  },
  sentence:
    'Mirror {parts} across {across}[, {centre}][ at {at}][, at the face {face}][, through {a}][, {b}][ and {c}][, leaving {leaving}]',
  apply(draft, values, context) {
    const { parts, across, centre, at, leaving } = values;
    const locked = lockedRefusal(draft, parts);
    if (locked) return locked;
    const chosen = withoutNested(draft, parts);
    const picked = pickedPlane(values);
    if (picked && 'refused' in picked) return picked;
    const centres = picked
      ? () => picked.point
      : centresOf({ document: draft, context }, chosen, { centre, at: at && vectorOf(at) });
    if ('refused' in centres) return centres;
    const normal = picked?.normal ?? worldDirection(across, NO_TURN);
    const map = stretchAlong(frameAlong(cleanDirection(normal)), [-1, 1, 1]);
    const fixed = chosen.map(centres);
    const reshaped: Record<ItemId, Affine> = {};
    for (const [i, id] of placedParts({ draft, context }, chosen, leaving).entries()) {
      const done = reshapePart({ draft, context }, draft.items[id]!, { linear: map, fixed: fixed[i]! });
      if ('refused' in done) return done;
      reshaped[id] = done;
      // A mirror image is not what was made and then resized: it was made so.
      for (const part of withAllBelow(draft, id)) delete part.made;
    }
    return { select: parts, reshaped };
  },
});

function pickedPlane({
  face,
  a,
  b,
  c,
}: Values<(typeof mirror)['blanks']>): { point: Vec3; normal: Vec3 } | Refusal | undefined {
  if (face) {
    if (face.kind !== 'plane') return refuse('flat.face', {}, 'face');
    return { point: face.at, normal: face.normal };
  }
  const points = { a, b, c };
  const given = Object.values(points).filter((point) => point !== undefined);
  if (given.length === 0) return undefined;
  const missing = (['a', 'b', 'c'] as const).find((key) => points[key] === undefined);
  if (missing) return refuse('missing.plane', {}, missing);
  const [p, q, r] = [vectorOf(a!), vectorOf(b!), vectorOf(c!)];
  const across = cross(subtract(q, p), subtract(r, p));
  if (length(across) < 1e-9) return refuse('line', {}, 'c');
  return { point: p, normal: unit(across) };
}
