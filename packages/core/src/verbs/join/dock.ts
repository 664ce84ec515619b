import { lineage, worldFromPart } from '../../document/items.ts';
import type { ItemId, KadrelDocument, Num, Part } from '../../document/schema.ts';
import { DOCK_ROLES, type Dock, type DockRole } from '../../document/dock.ts';
import { directionWithin, frameOut, keptFrame } from '../../docks/frames.ts';
import { valueOf, vectorOf } from '../../recipes/numbers.ts';
import { multiply, turnAbout } from '../../space/matrix.ts';
import {
  NO_TURN,
  AT_ORIGIN,
  carry,
  carryBack,
  chain,
  inverse,
  isSamePose,
  turnVector,
  type Pose,
} from '../../space/pose.ts';
import { add, scale, type Vec3 } from '../../space/vector.ts';
import {
  declareVerb,
  isRefusal,
  needed,
  optional,
  refuse,
  type Refusal,
  type VerbContext,
} from '../../statement/declare.ts';
import { worldDirection } from '../../statement/directions.ts';
import type { Spot } from '../../statement/docks.ts';
import { addDock } from '../shared/docks.ts';

/** More docks than this at once are a slip of the finger. */
const MAX_AT_ONCE = 500;
const UP: Vec3 = [0, 0, 1];

/** A named joining place on a part. */
export const dock = declareVerb({
  id: 'dock',
  name: 'Dock',
  group: 'join',
  key: 'Shift+J',
  about: 'A named joining place on a part: where it is, which way it looks, and what fits it.',
  words: ['connector', 'joining place', 'socket', 'plug', 'port', 'attach', 'pipe', 'track'],
  blanks: {
    at: needed('spot', 'place', 'Where it is: picked on a part with any snap, or three numbers.'),
    part: optional(
      'part',
      'part',
      'Whose it is, where the place is three numbers or the part is in a group.',
    ),
    kind: optional('text', 'kind', 'What fits it, as in pipe 40; docks of one kind go together.'),
    role: optional('choice', 'as', 'Whether it goes into its like or takes it in.', {
      choices: DOCK_ROLES,
      unsaid: 'either',
    }),
    size: optional('length', 'size', 'Docks that both tell a size go together where these are equal.', {
      positive: true,
      rare: true,
    }),
    out: optional(
      'direction',
      'looking',
      'Which way it looks in the world, where that is not out of the surface.',
    ),
    roll: needed('angle', 'roll', 'About the way it looks.', { default: '0', rare: true }),
    count: optional('count', 'count', 'How many, each a step on from the one before.', { rare: true }),
    every: optional('vector', 'every', 'The step from one to the next, along the axes of the part.', {
      rare: true,
    }),
    around: optional('angle', 'around', 'The step as an angle about the Z of the part.', { rare: true }),
    called: optional('text', 'called', 'Its name.'),
  },
  sentence:
    'Dock at {at}[ on {part}][, kind {kind}][, as {role}][, size {size}][, looking {out}][, roll {roll}][, {count} of them][, every {every}][, every {around} around][, called {called}]',
  apply(draft, values, context) {
    const owner = ownerOf(draft, values);
    if (owner === undefined) return refuse('part.dock', {}, 'part');
    const part = draft.items[owner]!;
    const frame = frameOf(draft, part, {
      ...values,
      out: values.out ? worldDirection(values.out, NO_TURN) : numbersOut(values.at, part, context),
    });
    const steps = stepsOf(values);
    if (isRefusal(steps)) return steps;
    const isTied = values.at.on !== undefined && part.id === values.at.part && steps.length === 1;
    for (const step of steps) {
      const said = {
        name: (values.called ?? 'Dock').slice(0, 120),
        ...lookOf(values),
        ...keptFrame(chain(step, frame)),
        ...(steps.length === 1 ? typedOrigin(draft, part, values.at) : {}),
        ...(isTied && values.out === undefined ? { on: values.at.on } : {}),
      };
      addDock(part, said, context);
    }
    return { select: [part.id] };
  },
});

/** The part that was picked on, unless it belongs to what was said; else what was said. */
function ownerOf(
  draft: KadrelDocument,
  { at, part }: { readonly at: Spot; readonly part?: ItemId | undefined },
): ItemId | undefined {
  if (at.part === undefined || part === undefined) return at.part ?? part;
  return lineage(draft, at.part).includes(part) ? part : at.part;
}

/** Of a place by numbers: out of the surface that it lies on. */
const numbersOut = ({ part, point }: Spot, { id }: Part, context: VerbContext): Vec3 | undefined =>
  part === undefined ? context.wayOut(id, point) : undefined;

/** Formulas stay where the frame of the part is that of the world. */
function typedOrigin(draft: KadrelDocument, part: Part, { asTyped }: Spot): Partial<Pick<Dock, 'origin'>> {
  return asTyped && isSamePose(worldFromPart(draft, part.id), AT_ORIGIN) ? { origin: [...asTyped] } : {};
}

interface Look {
  readonly kind?: string | undefined;
  readonly role?: string | undefined;
  readonly size?: Num | undefined;
}

const lookOf = ({ kind, role, size }: Look): Pick<Dock, 'kind' | 'role' | 'size'> => ({
  kind: (kind ?? '').slice(0, 60),
  ...(role === undefined ? {} : { role: role as DockRole }),
  ...(size === undefined ? {} : { size }),
});

interface Looking {
  readonly at: Spot;
  readonly out?: Vec3 | undefined;
  readonly roll: Num;
}

/** The frame of a dock of this part: Z the way it looks, X upward before the roll. In the frame of the part. */
function frameOf(draft: KadrelDocument, part: Part, { at, out, roll }: Looking): Pose {
  const world = worldFromPart(draft, part.id);
  const toPart = chain(inverse(world), ownerPose(draft, at.part));
  const point = at.part === undefined ? carryBack(world, at.point) : carry(toPart, at.point);
  const z = out ? directionWithin(world, out) : at.out ? turnVector(toPart.turn, at.out) : UP;
  return { turn: multiply(frameOut(z, [0, 0, 0]), turnAbout(UP, valueOf(roll))), shift: point };
}

const ownerPose = (draft: KadrelDocument, part: ItemId | undefined): Pose => worldFromPart(draft, part ?? '');

interface Several {
  readonly count?: number | undefined;
  readonly every?: readonly [Num, Num, Num] | undefined;
  readonly around?: Num | undefined;
}

/** Where each of several stands, relative to the first. */
function stepsOf({ count = 1, every, around }: Several): Pose[] | Refusal {
  if (count > MAX_AT_ONCE) return refuse('too-many.count', { maxAtOnce: MAX_AT_ONCE }, 'count');
  if (count > 1 && !every && around === undefined) return refuse('missing.every', {}, 'every');
  const by = every ? vectorOf([...every]) : ([0, 0, 0] as const);
  const angle = around === undefined ? 0 : valueOf(around);
  return Array.from({ length: count }, (_, i) => ({
    turn: turnAbout(UP, (angle * i) % 360),
    shift: add([0, 0, 0], scale(by, i)),
  }));
}
