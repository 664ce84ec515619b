import { poseOfPlacement, valueOf, worldFromParent } from '../../document/items.ts';
import { multiply, turnAbout, turnBetween } from '../../space/matrix.ts';
import { carry, carryBack, chain, turnVector } from '../../space/pose.ts';
import { add, dot, scale, subtract, type Vec3 } from '../../space/vector.ts';
import type { Feature } from '../../snapping/feature.ts';
import { declareVerb, needed, refuse, type Outcome, type Refusal } from '../../statement/declare.ts';
import type { KadrelDocument } from '../../document/schema.ts';
import { lockedRefusal, placePart } from '../shared/placing.ts';

/** Lays a face of one part flat on a face of another, opposite; or brings two round faces' axes into line. */
export const faceToFace = declareVerb({
  id: 'face-to-face',
  name: 'Face to face',
  group: 'place',
  about:
    'A face here and a face there lie flat on each other, with a clearance and a turn; round ones share an axis.',
  words: ['mate', 'flat', 'fit', 'join', 'coaxial', 'concentric', 'axis', 'contact', 'clearance'],
  blanks: {
    face: needed('feature', 'face', 'A flat or round face of the part that moves.', {
      catches: 'faces',
      next: 'onto',
    }),
    onto: needed('feature', 'other face', 'The face that it is laid on.', { catches: 'faces', next: 'gap' }),
    gap: needed('length', 'clearance', 'Left between the faces; 0 touches.', { default: '0' }),
    turn: needed('angle', 'turn', 'About the common normal or axis.', { default: '0' }),
    placed: needed('choice', 'placed', 'Where it comes to lie on the other face.', {
      default: 'near',
      choices: { near: 'where it is nearest', centred: 'centre on centre' },
    }),
  },
  sentence: 'Face to face {face} on {onto} with a clearance of {gap}[, turned {turn}][, {placed}]',
  apply(draft, { face, onto, gap, turn, placed }) {
    if (face.part === undefined) return refuse('part.face', {}, 'face');
    if (face.part === onto.part) return refuse('same-part.both-faces', {}, 'onto');
    if (face.kind !== 'plane' && face.kind !== 'axis') return refuse('face.flat-round', {}, 'face');
    if (onto.kind !== face.kind)
      return refuse('face.onto', { words: face.kind === 'plane' ? 'flat' : 'round' }, 'onto');
    const locked = lockedRefusal(draft, [face.part]);
    if (locked) return { ...locked, blank: 'face' };
    return lay(
      draft,
      { face, onto },
      {
        gap: valueOf(gap),
        turn: valueOf(turn),
        isCentred: placed === 'centred',
      },
    );
  },
});

interface Laying {
  readonly gap: number;
  readonly turn: number;
  readonly isCentred: boolean;
}

function lay(
  draft: KadrelDocument,
  { face, onto }: { readonly face: Feature; readonly onto: Feature },
  { gap, turn, isCentred }: Laying,
): Outcome | Refusal {
  const part = draft.items[face.part!]!;
  const pose = chain(worldFromParent(draft, part.id), poseOfPlacement(part.placement));
  const [from, to] = [headingOf(face), headingOf(onto)];
  const isFlat = face.kind === 'plane';
  const goal = isFlat ? scale(to, -1) : scale(to, dot(from, to) < 0 ? -1 : 1);
  const turned = multiply(turnAbout(to, turn), turnBetween(from, goal));
  // The part turns about the middle of its face, is placed, and is then read back: what is left of rounding goes into the shift.
  const inPart = carryBack(pose, face.at);
  const shift = add(face.at, turnVector(turned, subtract(pose.shift, face.at)));
  placePart(draft, part, { turn: multiply(turned, pose.turn), shift });
  const now = chain(worldFromParent(draft, part.id), poseOfPlacement(part.placement));
  const at = carry(now, inPart);
  const offset = subtract(onto.at, at);
  const along = dot(offset, to);
  const across = subtract(offset, scale(to, along));
  const move: Vec3 = isFlat
    ? add(isCentred ? across : [0, 0, 0], scale(to, along + gap))
    : add(across, isCentred ? scale(to, along + gap) : [0, 0, 0]);
  placePart(draft, part, { turn: now.turn, shift: add(now.shift, move) });
  return { select: [part.id] };
}

const headingOf = (feature: Feature): Vec3 =>
  feature.kind === 'plane' ? feature.normal : feature.kind === 'axis' ? feature.direction : [0, 0, 1];
