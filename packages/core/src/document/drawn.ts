/** Profiles together: their curves in one frame. */
import { reasonOf, type Reason } from '../language/reason.ts';
import { definitionOf, worldFromPart } from './items.ts';
import { referencesIn } from '../recipes/bodies/index.ts';
import type { ItemId, KadrelDocument, Part } from './schema.ts';
import { AT_ORIGIN, chain, inverse, type Pose } from '../space/pose.ts';
import type { Affine2, Vec2 } from '../space/vector2.ts';
import { EditFault } from '../profiles/corners.ts';
import { carryCurve, type Curve } from '../curves/curve.ts';
import { isCurveStep, type CurveStep } from '../recipes/steps/index.ts';
import { edited, greatestDeviation } from '../profiles/edits.ts';
import { outlineOf, type Path } from '../profiles/outline.ts';

/** A profile in the frame of another. */
export interface Section {
  readonly pose: Pose;
  readonly paths: readonly Path[];
}

/** What becomes of a profile, and why the first edit that cannot be made is left out. */
export interface Drawn {
  readonly paths: readonly Path[];
  readonly fault?: { readonly step: number; readonly why: Reason; readonly at?: Vec2 };
}

const NO_PROFILES: ReadonlySet<ItemId> = new Set();

/** The curves of a profile in its own frame, with its edits made; none of what is no profile. */
export const pathsOf = (document: KadrelDocument, id: ItemId): readonly Path[] => drawnOf(document, id).paths;

/**
 * @param within profiles whose edits ask for this one: where they name each other, the figure alone counts
 * @param steps how many of its steps are made
 */
export function drawnOf(
  document: KadrelDocument,
  id: ItemId,
  { within = NO_PROFILES, steps = Infinity }: { within?: ReadonlySet<ItemId>; steps?: number } = {},
): Drawn {
  const { recipe, id: own } = definitionOf(document, document.items[id]!);
  if (recipe.base.kind !== 'profile') return { paths: [] };
  // What asks for no other profile is the same as long as its recipe is: committed ones are frozen.
  const isOwn = steps === Infinity && Object.isFrozen(recipe) && referencesIn(recipe).length === 0;
  const known = isOwn ? KNOWN.get(recipe) : undefined;
  if (known) return known;
  const drawn = drawAnew(document, id, { recipe, own, within, steps });
  if (isOwn && !within.has(own)) KNOWN.set(recipe, drawn);
  return drawn;
}
const KNOWN = new WeakMap<object, Drawn>();

interface Drawing {
  readonly recipe: Part['recipe'];
  readonly own: ItemId;
  readonly within: ReadonlySet<ItemId>;
  readonly steps: number;
}

function drawAnew(document: KadrelDocument, id: ItemId, { recipe, own, within, steps }: Drawing): Drawn {
  if (recipe.base.kind !== 'profile') return { paths: [] };
  let paths: readonly Path[] = outlineOf(recipe.base.figure);
  if (within.has(own)) return { paths };
  const asking = new Set(within).add(own);
  for (const [step, edit] of recipe.steps.slice(0, steps).entries()) {
    if (edit.off) continue;
    try {
      if (isCurveStep(edit)) paths = edited(paths, edit, cutters(document, id, edit, asking));
      else if (edit.kind === 'mirror') paths = carried(paths, FLIPPED);
      else if (edit.kind === 'scale')
        paths = carried(paths, { x: [edit.by, 0], y: [0, edit.by], shift: [0, 0] });
    } catch (error) {
      if (!(error instanceof EditFault)) throw error;
      const { why, at } = error;
      return { paths, fault: { step, why, ...(at && { at }) } };
    }
  }
  return { paths };
}

/** How far a step of a profile departs from what was drawn before it, mm, and how many curves there were and are. */
export function deviationOfStep(
  document: KadrelDocument,
  id: ItemId,
  step: number,
): { deviation: number; before: number; after: number } | undefined {
  const [before, after] = [
    drawnOf(document, id, { steps: step }),
    drawnOf(document, id, { steps: step + 1 }),
  ];
  if (after.fault) return undefined;
  const count = ({ paths }: Drawn) => paths.reduce((sum, { curves }) => sum + curves.length, 0);
  return {
    deviation: greatestDeviation(before.paths, after.paths),
    before: count(before),
    after: count(after),
  };
}

const FLIPPED: Affine2 = { x: [-1, 0], y: [0, 1], shift: [0, 0] };

const carried = (paths: readonly Path[], map: Affine2): Path[] =>
  paths.map(({ closed, curves }) => ({
    closed,
    curves: curves.map(({ name, curve }) => ({ name, curve: carryCurve(map, curve) })),
  }));

/** Curves of the profiles that an edit names, in the frame of the edited one; of those in its plane. */
function cutters(
  document: KadrelDocument,
  id: ItemId,
  edit: CurveStep,
  asking: ReadonlySet<ItemId>,
): Curve[] {
  if (!('profiles' in edit)) return [];
  return edit.profiles.flatMap((other) => {
    if (!document.items[other]) return [];
    const map = mapInPlane(chain(inverse(worldFromPart(document, id)), worldFromPart(document, other)));
    if (!map) throw new EditFault(reasonOf('edit.off-plane', { name: document.items[other].name }));
    return carried(drawnOf(document, other, { within: asking }).paths, map).flatMap(({ curves }) =>
      curves.map(({ curve }) => curve),
    );
  });
}

/** Profiles in the frame of the first one. */
export function sectionsOf(document: KadrelDocument, ids: readonly ItemId[]): Section[] {
  const back = inverse(worldFromPart(document, ids[0]!));
  return ids.map((id, i): Section => ({
    pose: i === 0 ? AT_ORIGIN : chain(back, worldFromPart(document, id)),
    paths: pathsOf(document, id),
  }));
}

/** The map of a plane that a pose is; undefined where it leads out of the plane. */
function mapInPlane({ turn: t, shift }: Pose): Affine2 | undefined {
  if ([t[2], t[5], t[6], t[7], shift[2]].some((n) => Math.abs(n) > SAME_PLANE)) return undefined;
  return { x: [t[0], t[3]], y: [t[1], t[4]], shift: [shift[0], shift[1]] };
}

/** A profile whose plane is off by more than this (mm, or the sine of an angle) does not lie in the plane of another. */
const SAME_PLANE = 1e-7;

/** Curves of several profiles in one plane; those of all but the first are named after their profile. */
export function pathsOnPlane(document: KadrelDocument, ids: readonly ItemId[]): Path[] | undefined {
  const paths: Path[] = [];
  for (const [i, { pose, paths: own }] of sectionsOf(document, ids).entries()) {
    if (i === 0) {
      paths.push(...own);
      continue;
    }
    const map = mapInPlane(pose);
    if (!map) return undefined;
    for (const { closed, curves } of own)
      paths.push({
        closed,
        curves: curves.map(({ name, curve }) => ({
          name: `${ids[i]!}.${name}`,
          curve: carryCurve(map, curve),
        })),
      });
  }
  return paths;
}
