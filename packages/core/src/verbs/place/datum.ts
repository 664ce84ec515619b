import { vectorOf, worldFromPart } from '../../document/items.ts';
import { carryBack } from '../../space/pose.ts';
import { cleanLength } from '../../space/rounding.ts';
import { declareVerb, needed } from '../../statement/declare.ts';
import { lockedRefusal } from '../shared/placing.ts';

/** Puts the datum of a part onto a point, without moving the part. */
export const datum = declareVerb({
  id: 'datum',
  name: 'Datum',
  group: 'place',
  about: 'Puts the datum of a part onto a corner, an edge, a face or any point; the part stays.',
  words: ['origin', 'pivot', 'reference point', 'handle'],
  blanks: {
    part: needed('part', 'part', 'Whose datum it is.'),
    at: needed('point', 'place', 'Where it goes: picked with any snap, or typed.', { completes: true }),
  },
  sentence: 'Datum of {part} at {at}',
  apply(draft, { part: id, at }) {
    const part = draft.items[id]!;
    const locked = lockedRefusal(draft, [id]);
    if (locked) return { ...locked, blank: 'part' };
    const point = carryBack(worldFromPart(draft, id), vectorOf(at)).map((n) => cleanLength(n));
    part.datum = { point: point as [number, number, number] };
    return { select: [id] };
  },
});
