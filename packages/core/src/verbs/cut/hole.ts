import {
  CLEARANCE_SERIES,
  THREADS,
  clearanceHole,
  nominalOf,
  type ClearanceSeries,
} from '../../fit/iso273.ts';
import type { Dock } from '../../document/dock.ts';
import { placePart } from '../../document/placing.ts';
import { isWhole, valueOf, worldFromPart } from '../../document/items.ts';
import type { ItemId, Num } from '../../document/schema.ts';
import { directionWithin, frameOut, keptFrame } from '../../docks/frames.ts';
import { carry, carryBack, turnVector, type Pose } from '../../space/pose.ts';
import { along, dot, scale, type Vec3 } from '../../space/vector.ts';
import {
  declareVerb,
  isRefusal,
  needed,
  optional,
  refuse,
  type Refusal,
  type Values,
  type Drafting,
} from '../../statement/declare.ts';
import type { Spot } from '../../statement/docks.ts';
import { addPart } from '../shared/addPart.ts';
import { combine } from '../shared/combine.ts';
import { addDock } from '../shared/docks.ts';
import { rangeAlong } from '../place/distribute.ts';

/** How far the drill reaches out of the surface, mm: so far that nothing is left standing on it. */
const OUT_MM = 1;

const BLANKS = {
  at: needed('spot', 'place', 'Where it is drilled: picked on a part with any snap, or three numbers.'),
  part: optional('part', 'part', 'What is drilled, where the place is three numbers.'),
  thread: optional('choice', 'for', 'The bolt that goes through: its clearance hole by ISO 273.', {
    choices: THREADS,
    excludes: 'diameter',
    neededUnless: 'diameter',
  }),
  series: needed('choice', 'series', 'How much room the bolt has.', {
    default: 'medium',
    choices: CLEARANCE_SERIES,
    rare: true,
  }),
  diameter: optional('length', 'diameter', 'Across it, where it is for no bolt.', {
    positive: true,
    excludes: 'thread',
  }),
  depth: optional('length', 'depth', 'How deep; all the way through where nothing is said.', {
    positive: true,
  }),
  docks: needed('choice', 'docks', 'Whether its mouths become docks for bolts.', {
    default: 'yes',
    choices: { yes: 'with docks', no: 'without docks' },
    rare: true,
  }),
};

/** A round hole square to a surface, for a bolt or of a diameter. */
export const hole = declareVerb({
  id: 'hole',
  name: 'Hole',
  group: 'cut',
  about: 'A round hole into a surface: for a bolt by ISO 273, or of a diameter; its mouths are docks.',
  words: ['drill', 'bore', 'bolt', 'screw', 'clearance', 'iso 273', 'through'],
  blanks: BLANKS,
  sentence:
    'Hole at {at}[ in {part}][, for {thread}][, {series} series][, {diameter} wide][, {depth} deep][, {docks}]',
  apply(draft, values, context) {
    const owner = { part: values.at.part ?? values.part };
    if (owner.part === undefined) return refuse('part.drilled', {}, 'part');
    const part = draft.items[owner.part]!;
    if (isWhole(draft, part)) return refuse('whole.several', { name: part.name }, 'part');
    const drill = drillOf({ draft, context }, part.id, values);
    if (isRefusal(drill)) return drill;
    const tool = addPart(draft, context, {
      name: 'Drill',
      base: { kind: 'cylinder', diameter: drill.diameter, height: drill.height },
      at: [0, 0, 0],
    });
    placePart(draft, draft.items[tool]!, drill.pose);
    const cut = combine(draft, { how: 'subtract', base: part.id, others: [tool], as: undefined }, context);
    if (isRefusal(cut)) return { ...cut, blank: 'part' };
    if (values.docks === 'yes') addMouths({ draft, context }, cut.result!, { drill, values });
    return cut;
  },
});

type HoleValues = Values<typeof BLANKS>;

interface Drill {
  readonly diameter: Num;
  readonly height: Num;
  /** The frame of the cylinder in the world: its Z goes out of the surface. */
  readonly pose: Pose;
  /** Where it comes in, and, where it goes through, where it comes out; in the world. */
  readonly mouths: readonly { readonly at: Vec3; readonly out: Vec3 }[];
}

function drillOf({ draft, context }: Drafting, part: ItemId, values: HoleValues): Drill | Refusal {
  const { thread, series, diameter, depth } = values;
  const across =
    diameter ?? (thread === undefined ? undefined : clearanceHole(thread, series as ClearanceSeries));
  if (across === undefined) return refuse('missing.thread', {}, 'thread');
  const { at, out } = inWorld({ draft, context }, part, values.at);
  if (!out) return refuse('surface.at', {}, 'at');
  const through = dot(at, out) - rangeAlong(part, out, context)[0];
  const deep = depth === undefined ? through + OUT_MM : valueOf(depth);
  const foot = along(at, out, -deep);
  const back = along(at, out, -through);
  return {
    diameter: across,
    height: deep + OUT_MM,
    pose: { turn: frameOut(out, [0, 0, 0]), shift: foot },
    mouths: [{ at, out }, ...(depth === undefined ? [{ at: back, out: scale(out, -1) }] : [])],
  };
}

function inWorld(
  { draft, context }: Drafting,
  part: ItemId,
  spot: Spot,
): { at: Vec3; out: Vec3 | undefined } {
  if (spot.part === undefined) return { at: spot.point, out: context.wayOut(part, spot.point) };
  const pose = worldFromPart(draft, spot.part);
  return { at: carry(pose, spot.point), out: spot.out && turnVector(pose.turn, spot.out) };
}

interface Mouths {
  readonly drill: Drill;
  readonly values: HoleValues;
}

/** Docks that take in a bolt, at both mouths of a hole that goes through. */
function addMouths({ draft, context }: Drafting, id: ItemId, { drill, values }: Mouths): void {
  const part = draft.items[id]!;
  const world = worldFromPart(draft, id);
  const { thread } = values;
  for (const { at, out } of drill.mouths) {
    const frame = { turn: frameOut(directionWithin(world, out), [0, 0, 0]), shift: carryBack(world, at) };
    addDock(part, { name: 'hole', ...boltLook(thread), ...keptFrame(frame) }, context);
  }
}

/** What fits a hole for a thread: a bolt of that size. */
const boltLook = (thread: string | undefined): Pick<Dock, 'kind' | 'role' | 'size'> => ({
  kind: 'bolt',
  role: 'socket',
  ...(thread === undefined ? {} : { size: nominalOf(thread) }),
});
