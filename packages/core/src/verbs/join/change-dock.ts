import { worldFromPart } from '../../document/items.ts';
import type { Dock } from '../../document/dock.ts';
import type { Part } from '../../document/schema.ts';
import { column, multiply, turnAbout } from '../../space/matrix.ts';
import { NO_TURN, carry, chain, inverse, type Pose } from '../../space/pose.ts';
import { valueOf } from '../../recipes/numbers.ts';
import { directionWithin, frameOut, keptFrame, numberedFrame } from '../../docks/frames.ts';
import {
  declareVerb,
  isRefusal,
  needed,
  optional,
  refuse,
  type Refusal,
  type Values,
  type VerbContext,
} from '../../statement/declare.ts';
import { worldDirection } from '../../statement/directions.ts';
import { readOne } from '../../statement/reading.ts';

const ROLES = { plug: 'plug', socket: 'socket', either: 'either' } as const;

/** Sets what is said of a dock, anew. */
export const changeDock = declareVerb({
  id: 'change-dock',
  name: 'Change dock',
  group: 'join',
  about: 'Sets the name, kind, place or direction of a dock.',
  words: ['rename dock', 'move dock', 'edit', 'roll'],
  blanks: {
    part: needed('part', 'part', 'Whose dock it is.'),
    dock: needed('text', 'dock', 'Its name.'),
    called: optional('text', 'called', 'Its new name.'),
    kind: optional('text', 'kind', 'What fits it; - for none.'),
    role: optional('choice', 'as', 'Whether it goes into its like or takes it in.', { choices: ROLES }),
    size: optional(
      'quantity',
      'size',
      'Docks that both tell a size go together where these are equal; 0 for none.',
      {
        kind: 'length',
      },
    ),
    at: optional('spot', 'place', 'Where it is from now on.'),
    out: optional('direction', 'looking', 'Which way it looks from now on.'),
    by: optional('vector', 'moved by', 'Along the axes of the part; it then follows no names any more.'),
    roll: optional('angle', 'rolled by', 'About the way it looks.'),
  },
  sentence:
    'Change dock {dock} of {part}[, called {called}][, kind {kind}][, as {role}][, size {size}][, at {at}][, looking {out}][, moved by {by}][, rolled by {roll}]',
  apply(draft, values, context) {
    const part = draft.items[values.part]!;
    const dock = Object.values(part.docks ?? {}).find(
      ({ name, id }) => name === values.dock || id === values.dock,
    );
    if (!dock) return refuse('unknown-dock.dock', { name: part.name, dock: values.dock }, 'dock');
    const fault = changeLook({ part, dock }, values, context);
    if (fault) return fault;
    const stands = context.docksOn(part.id).find(({ end }) => end.of === part.id && end.dock === dock.id);
    const world = worldFromPart(draft, part.id);
    const now = stands ? chain(inverse(world), stands.pose) : numberedFrame(dock);
    const set = frameSet(values, now, { world, part, draft });
    if (set) {
      Object.assign(dock, keptFrame(set));
      if (values.at?.on && values.at.part === part.id) dock.on = values.at.on;
      else if (values.at || values.by || values.out) delete dock.on;
    }
    return { select: [part.id] };
  },
});

type ChangeValues = Values<(typeof changeDock)['blanks']>;

function changeLook(
  { part, dock }: { readonly part: Part; readonly dock: Dock },
  values: ChangeValues,
  context: VerbContext,
): Refusal | undefined {
  const { called, kind, role, size } = values;
  if (called !== undefined && called !== dock.name) {
    if (Object.values(part.docks ?? {}).some(({ name }) => name === called))
      return refuse('name-taken.dock', { name: part.name, called }, 'called');
    dock.name = called.slice(0, 120);
  }
  if (kind !== undefined) dock.kind = kind === '-' ? '' : kind.slice(0, 60);
  if (role === 'either') delete dock.role;
  else if (role !== undefined) dock.role = role as NonNullable<Dock['role']>;
  if (size === undefined) return undefined;
  const read = readOne(size, { kind: 'length', now: dock.size ?? 0, context, blank: 'size' });
  if (isRefusal(read)) return read;
  if (valueOf(read) < 0) return refuse('not-positive.size', {}, 'size');
  if (valueOf(read) === 0) delete dock.size;
  else dock.size = read;
  return undefined;
}

interface Around {
  readonly world: Pose;
  readonly part: Part;
  readonly draft: Parameters<typeof worldFromPart>[0];
}

/** Its frame from now on, in the frame of the part; undefined where nothing was said of it. */
function frameSet(
  { at, out, by, roll }: ChangeValues,
  now: Pose,
  { world, part, draft }: Around,
): Pose | undefined {
  if (!at && !out && !by && roll === undefined) return undefined;
  const owner = at?.part === undefined || at.part === part.id ? undefined : worldFromPart(draft, at.part);
  const toPart = at?.part === undefined ? inverse(world) : owner ? chain(inverse(world), owner) : undefined;
  const point = at ? (toPart ? carry(toPart, at.point) : at.point) : now.shift;
  const z = out ? directionWithin(world, worldDirection(out, NO_TURN)) : (at?.out ?? column(now.turn, 2));
  const turn = frameOut(z, column(now.turn, 0));
  const shift = by ? point.map((n, i) => n + valueOf(by[i]!)) : point;
  return {
    turn: roll === undefined ? turn : multiply(turn, turnAbout([0, 0, 1], valueOf(roll))),
    shift: shift as unknown as Pose['shift'],
  };
}
