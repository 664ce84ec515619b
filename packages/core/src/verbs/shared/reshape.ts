/**
 * Linear maps of parts: what Resize and Mirror are made of. The map goes down to the plain solids, since it commutes
 * with unions, subtractions and intersections; there it becomes new sizes where the solid stays of its kind, and a
 * `stretched` base where it does not. So every solid stays exact.
 * Long, since every kind of base is mapped in its own way.
 */
import {
  definitionOf,
  poseOfPlacement,
  valueOf,
  worldFromParent,
  worldFromPart,
} from '../../document/items.ts';
import { datumInPart, datumInWorld } from '../../document/datum.ts';
import {
  childrenOf,
  type Base,
  type ItemId,
  type KadrelDocument,
  type Num,
  type Part,
  type SolidBase,
} from '../../document/schema.ts';
import { isBody, type BodyKind } from '../../recipes/bodies/index.ts';
import { mapLayout } from '../../patterns/mapped.ts';
import {
  applyMatrix,
  column,
  determinant,
  fromColumns,
  multiply,
  transposed,
  type Matrix,
} from '../../space/matrix.ts';
import { NO_TURN, carry, degreesOfTurn, isIdentity, turnVector, type Turn } from '../../space/pose.ts';
import { cleanLength, roundAngle, roundLength } from '../../space/rounding.ts';
import { boxCorners, boxOf as boxOfPoints } from '../../space/box.ts';
import { add, dot, length, scale, subtract, type Vec3 } from '../../space/vector.ts';
import { makeIndependent, plain } from './copying.ts';
import {
  refuse,
  type Affine,
  type Refusal,
  type VerbContext,
  type Drafting,
} from '../../statement/declare.ts';
import { dockMap } from './mappedDocks.ts';
import { linkedWith } from './tree.ts';

/** Columns whose cosine, or whose relative difference in length, is below this are square or equal: rounding noise. */
const SAME = 1e-12;
const FLIP_X: Matrix = [-1, 0, 0, 0, 1, 0, 0, 0, 1];

/** Keeps what a part is now as what it was made, unless that is kept already. */
export function rememberMade(part: Part, datumAt?: Vec3): void {
  const { recipe, placement, datum, docks } = part;
  part.made ??= plain<NonNullable<Part['made']>>({
    base: recipe.base,
    placement,
    datum,
    ...(datumAt ? { datumAt: [...datumAt] } : {}),
    ...(docks ? { docks } : {}),
  });
}

type ReshapeContext = Pick<VerbContext, 'boxOf' | 'newId'>;

/**
 * Maps a part by `linear` about a point that stays, both in the world. Returns the map, for the preview, or why there is no
 * such part. Parts that share their recipe change with it, each about its own datum; a mirrored one gets its own recipe.
 */
export function reshapePart(
  { draft, context }: Drafting<ReshapeContext>,
  part: Part,
  { linear, fixed }: { readonly linear: Matrix; readonly fixed: Vec3 },
): Affine | Refusal {
  if (determinant(linear) < 0) makeIndependent(draft, part, context);
  const shared = linkedWith(draft, part);
  return shared.length > 1
    ? reshapeShared({ draft, context }, part, { linear, fixed, shared })
    : reshapeOwn({ draft, context }, part, { linear, fixed });
}

function reshapeOwn(
  { draft, context }: Drafting<ReshapeContext>,
  part: Part,
  { linear, fixed }: { readonly linear: Matrix; readonly fixed: Vec3 },
): Affine | Refusal {
  rememberMade(
    part,
    datumInPart(part, (id) => context.boxOf(id)),
  );
  const parent = worldFromParent(draft, part.id);
  // The map in the frame that the part's placement is given in: about that frame's origin, and then a shift.
  const inParent = isIdentity(parent.turn)
    ? linear
    : multiply(transposed(parent.turn), multiply(linear, parent.turn));
  const centre = subtract(fixed, parent.shift);
  const shift = turnVector(transposed(parent.turn), subtract(centre, applyMatrix(linear, centre)));
  const fault = mapPart({ draft, context }, part, inParent);
  if (fault) return fault;
  shiftBy(part, shift);
  return affineAbout(linear, fixed);
}

const affineAbout = (linear: Matrix, fixed: Vec3): Affine => ({
  linear,
  shift: subtract(fixed, applyMatrix(linear, fixed)),
});

/** One recipe of several parts: it is mapped once, in the part's own frame, and each part then put back onto its datum. */
function reshapeShared(
  { draft, context }: Drafting<ReshapeContext>,
  part: Part,
  {
    linear,
    fixed,
    shared,
  }: { readonly linear: Matrix; readonly fixed: Vec3; readonly shared: readonly Part[] },
): Affine | Refusal {
  const definition = definitionOf(draft, part);
  const boxOf = (id: ItemId) => context.boxOf(id);
  const data = new Map(shared.map((one) => [one.id, datumInWorld(draft, one, boxOf)]));
  if ([...data.values()].some((datum) => !datum))
    return refuse('no-box.parts', { name: definition.name }, 'parts');
  const { turn } = worldFromPart(draft, part.id);
  const own = multiply(transposed(turn), multiply(linear, turn));
  const was = worldFromPart(draft, definition.id).turn;
  const inWorld = multiply(was, multiply(own, transposed(was)));
  const map = reshapeOwn({ draft, context }, definition, {
    linear: inWorld,
    fixed: data.get(definition.id)!,
  });
  if ('refused' in map) return map;
  const turned = multiply(transposed(was), worldFromPart(draft, definition.id).turn);
  for (const one of shared) {
    if (one !== definition && !isIdentity(turned))
      one.placement.turn = degreesOfTurn(multiply(poseOfPlacement(one.placement).turn, turned)).map(
        roundAngle,
      ) as [number, number, number];
    const datum = data.get(one.id)!;
    const goal = one.id === part.id ? add(fixed, applyMatrix(linear, subtract(datum, fixed))) : datum;
    const inPart = datumAfter(one, { base: definition.recipe.base, own }, boxOf);
    const now = carry(worldFromPart(draft, one.id), inPart);
    const off = subtract(goal, now);
    shiftBy(one, turnVector(transposed(worldFromParent(draft, one.id).turn), off));
  }
  return affineAbout(linear, fixed);
}

/** The datum of a part whose recipe was mapped; where only the kernel could tell, of the mapped box as far as its axes stay. */
function datumAfter(
  part: Part,
  { base, own }: { readonly base: Base; readonly own: Matrix },
  boxOf: VerbContext['boxOf'],
): Vec3 {
  const before = boxOf(part.id);
  const mapped = before && boxOfPoints(boxCorners(before).map((corner) => applyMatrix(own, corner)));
  return datumInPart(part, () => mapped, base) ?? [0, 0, 0];
}

function shiftBy(part: Part, by: Vec3): void {
  part.placement.origin = part.placement.origin.map((n, axis) =>
    by[axis] === 0 ? n : cleanLength(valueOf(n) + by[axis]!, Math.abs(valueOf(n)) + Math.abs(by[axis]!)),
  ) as Part['placement']['origin'];
}

/** Maps a part about the origin of the frame that its placement is given in; why not, or undefined. */
function mapPart({ draft, context }: Drafting<ReshapeContext>, part: Part, map: Matrix): Refusal | undefined {
  rememberMade(part);
  const docks = dockMap(draft, part, map);
  const { turn, shift } = poseOfPlacement(part.placement);
  const own = isIdentity(turn) ? map : multiply(transposed(turn), multiply(map, turn));
  const carried = applyMatrix(map, shift);
  part.placement.origin = part.placement.origin.map((n, axis) =>
    valueOf(n) === carried[axis] ? n : cleanLength(carried[axis]!),
  ) as Part['placement']['origin'];
  // What is below may be linked to parts elsewhere, which do not change with it.
  if (part.recipe.base.kind === 'link') makeIndependent(draft, part, context);
  const fault = mapForm({ draft, context }, part, { own, turn });
  if (!fault) docks();
  return fault;
}

interface OwnMap {
  /** The map in the frame of the part. */
  readonly own: Matrix;
  /** How the part is turned in the frame that its placement is given in. */
  readonly turn: Turn;
}

/** Maps what a part is made of; where it stands is mapped already. */
function mapForm(
  { draft, context }: Drafting<ReshapeContext>,
  part: Part,
  { own, turn }: OwnMap,
): Refusal | undefined {
  const { base } = part.recipe;
  if (base.kind === 'link') throw new Error(`${part.name} is linked to a link.`);
  if (isBody(base) || part.recipe.steps.length > 0) return mapMade(part, own, turn);
  if (base.kind !== 'combine' && base.kind !== 'pattern' && base.kind !== 'group') {
    mapSolid(part, base, { own, turn });
    return undefined;
  }
  if (base.kind === 'pattern') {
    const layout = mapLayout(base.layout, own);
    if (!layout) return refuse('members', { name: part.name }, 'parts');
    base.layout = layout;
  }
  for (const child of childrenOf(part)) {
    const fault = mapPart({ draft, context }, draft.items[child]!, own);
    if (fault) return fault;
  }
  part.datum = mappedDatum(part.datum, own);
  return undefined;
}

/** What its recipe makes is kept: only the size of the whole changes, and its hand, by steps after all others. */
function mapMade(part: Part, own: Matrix, turn: Turn): Refusal | undefined {
  const isMirrored = determinant(own) < 0;
  const map = isMirrored ? multiply(own, FLIP_X) : own;
  const size = length(column(map, 0));
  // Of a ball a map under which it stays one keeps all angles.
  const turned = turnWithin('sphere', map);
  if (!turned) return refuse('body', { name: part.name }, 'parts');
  const { kind } = part.recipe.base;
  if ((kind === 'plane' || kind === 'section') && Math.abs(size - 1) > SAME)
    return refuse('plane.parts', { name: part.name }, 'parts');
  if (isMirrored) addMirror(part.recipe.steps);
  if (Math.abs(size - 1) > SAME) addScale(part.recipe.steps, size);
  if (!isIdentity(turned))
    part.placement.turn = degreesOfTurn(multiply(turn, turned)).map(roundAngle) as [number, number, number];
  const { datum } = part;
  if (datum !== 'own')
    part.datum =
      'point' in datum
        ? {
            point: [...applyMatrix(multiply(transposed(turned), own), [...datum.point])] as [
              number,
              number,
              number,
            ],
          }
        : isMirrored
          ? ([-datum[0] + 0, datum[1], datum[2]] as Part['datum'])
          : datum;
  return undefined;
}

type Steps = Part['recipe']['steps'];
/** Twice mirrored is not mirrored. */
function addMirror(steps: Steps): void {
  const last = steps.at(-1);
  // A size before it is the same after it.
  const at = last?.kind === 'scale' ? steps.length - 2 : steps.length - 1;
  if (steps[at]?.kind === 'mirror') steps.splice(at, 1);
  else steps.push({ kind: 'mirror' });
}

function addScale(steps: Steps, by: number): void {
  const last = steps.at(-1);
  if (last?.kind !== 'scale') steps.push({ kind: 'scale', by: roundLength(by) });
  else if (Math.abs(last.by * by - 1) <= SAME) steps.pop();
  else last.by = roundLength(last.by * by);
}

type Plainly = Exclude<Base, { kind: 'combine' | 'pattern' | 'group' | 'link' | BodyKind }>;

function mapSolid(
  part: Part,
  base: Plainly,
  { own, turn }: { readonly own: Matrix; readonly turn: Turn },
): void {
  const solid: SolidBase = base.kind === 'stretched' ? base.of : base;
  const whole = base.kind === 'stretched' ? multiply(own, base.by as unknown as Matrix) : own;
  const isMirrored = determinant(whole) < 0;
  // A mirrored box is the box beside its own origin; round solids are their own mirror images.
  const map = isMirrored ? multiply(whole, FLIP_X) : whole;
  const beside: Vec3 = isMirrored && solid.kind === 'box' ? [-valueOf(solid.size[0]), 0, 0] : [0, 0, 0];
  const turned = turnWithin(solid.kind, map);
  const datumBefore = part.datum;
  part.recipe.base = turned
    ? resized(solid, [0, 1, 2].map((i) => length(column(map, i))) as unknown as Vec3)
    : { kind: 'stretched', of: plain(solid), by: [...map] };
  const aside = applyMatrix(map, beside);
  shiftBy(part, turnVector(turn, aside));
  if (turned && !isIdentity(turned))
    part.placement.turn = degreesOfTurn(multiply(turn, turned)).map(roundAngle) as unknown as [
      number,
      number,
      number,
    ];
  part.datum =
    typeof datumBefore === 'object' && 'point' in datumBefore
      ? {
          point: [
            ...turnVector(
              transposed(turned ?? NO_TURN),
              subtract(applyMatrix(own, [...datumBefore.point]), aside),
            ),
          ] as [number, number, number],
        }
      : isMirrored
        ? flipped(datumBefore, solid)
        : datumBefore;
}

/** The turn in a map under which a plain solid stays of its kind; undefined when it does not. */
export function turnWithin(kind: SolidBase['kind'], map: Matrix): Turn | undefined {
  const columns = [column(map, 0), column(map, 1), column(map, 2)] as const;
  const [x, y, z] = columns.map(length) as unknown as Vec3;
  const areSquare = ([a, b]: readonly [Vec3, Vec3]) => Math.abs(dot(a, b)) <= SAME * length(a) * length(b);
  const areEqual = (a: number, b: number) => Math.abs(a - b) <= SAME * Math.max(a, b);
  const square = (
    [
      [0, 1],
      [0, 2],
      [1, 2],
    ] as const
  ).every(([a, b]) => areSquare([columns[a], columns[b]]));
  if (!square) return undefined;
  if (kind !== 'box' && !areEqual(x, y)) return undefined;
  if ((kind === 'sphere' || kind === 'torus') && !areEqual(x, z)) return undefined;
  return fromColumns(scale(columns[0], 1 / x), scale(columns[1], 1 / y), scale(columns[2], 1 / z));
}

function resized(solid: SolidBase, [x, y, z]: Vec3): SolidBase {
  const times = (n: Num, by: number): Num => (Math.abs(by - 1) < SAME ? n : roundLength(valueOf(n) * by));
  switch (solid.kind) {
    case 'box':
      return { ...solid, size: [times(solid.size[0], x), times(solid.size[1], y), times(solid.size[2], z)] };
    case 'cylinder':
      return { ...solid, diameter: times(solid.diameter, x), height: times(solid.height, z) };
    case 'sphere':
      return { ...solid, diameter: times(solid.diameter, x) };
    case 'cone':
      return {
        ...solid,
        diameter: times(solid.diameter, x),
        top: times(solid.top, x),
        height: times(solid.height, z),
      };
    case 'tube':
      return {
        ...solid,
        diameter: times(solid.diameter, x),
        bore: times(solid.bore, x),
        height: times(solid.height, z),
      };
    case 'torus':
      return { ...solid, diameter: times(solid.diameter, x), thickness: times(solid.thickness, x) };
    case 'prism':
      return { ...solid, size: times(solid.size, x), height: times(solid.height, z) };
  }
}

/** The same corner of the mirrored box. */
function flipped(datum: Part['datum'], solid: SolidBase): Part['datum'] {
  const point = datum === 'own' ? (solid.kind === 'box' ? ([-1, -1, -1] as const) : undefined) : datum;
  if (point === undefined || 'point' in point) return datum;
  return [-point[0] + 0, point[1], point[2]] as Part['datum'];
}

/** A combination keeps its own frame: where the map runs along its axes, its box points go with it. */
function mappedDatum(datum: Part['datum'], own: Matrix): Part['datum'] {
  if (datum === 'own') return datum;
  if ('point' in datum) return { point: [...applyMatrix(own, [...datum.point])] as [number, number, number] };
  const isDiagonal = own.every((n, i) => i % 4 === 0 || n === 0);
  return isDiagonal ? (datum.map((n, i) => n * Math.sign(own[4 * i]!) + 0) as Part['datum']) : datum;
}

/** Docks go back to where they were made; those made since stay. */
function restoreDocks(part: Part, made: NonNullable<Part['docks']>): void {
  for (const [id, { origin, turn, on }] of Object.entries(plain(made))) {
    const dock = part.docks?.[id];
    if (!dock) continue;
    Object.assign(dock, { origin, turn });
    if (on) dock.on = on;
    else delete dock.on;
  }
}

/** What a part is as it was made; its operands also in the place where they were made. */
export function unmade(draft: KadrelDocument, part: Part): void {
  const { base } = part.recipe;
  // What a part is made from may have changed since: of a pattern only the layout goes back, of others what is below.
  if (part.made && base.kind === 'pattern' && part.made.base.kind === 'pattern')
    base.layout = plain(part.made.base.layout);
  else if (part.made && childrenOf(part).length === 0) part.recipe.base = plain(part.made.base);
  if (part.made) part.datum = plain(part.made.datum);
  if (part.made?.docks) restoreDocks(part, part.made.docks);
  for (const id of childrenOf(part)) {
    const operand = draft.items[id]!;
    if (operand.made) operand.placement = plain(operand.made.placement);
    unmade(draft, operand);
  }
  delete part.made;
}
