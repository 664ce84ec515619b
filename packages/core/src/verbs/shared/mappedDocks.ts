/** Docks of a part that is resized or mirrored: they stay on their places of it, and look out of it. */
import { frameOut, keptFrame, numberedFrame } from '../../docks/frames.ts';
import type { Dock } from '../../document/dock.ts';
import { MEETING, MERGED } from '../../document/naming.ts';
import { poseOfPlacement } from '../../document/items.ts';
import { childrenOf, type KadrelDocument, type Part } from '../../document/schema.ts';
import {
  applyMatrix,
  column,
  determinant,
  inverseMatrix,
  transposed,
  type Matrix,
} from '../../space/matrix.ts';
import { carry, carryBack, turnBack, turnVector, type Pose } from '../../space/pose.ts';
import { unit, type Vec3 } from '../../space/vector.ts';

/**
 * What is to be done with the docks of a part once its place and its form are mapped. Ask before that.
 * @param map of the frame that the placement of the part is given in
 */
export function dockMap(draft: KadrelDocument, part: Part, map: Matrix): () => void {
  const docks = Object.values(part.docks ?? {});
  if (docks.length === 0) return () => undefined;
  const unmapped = poseOfPlacement(part.placement);
  const isMirrored = determinant(map) < 0;
  return () => {
    const now = poseOfPlacement(part.placement);
    for (const dock of docks) mapDock(dock, { unmapped, now, map });
    if (isMirrored) for (const dock of docks) mirrorNames(draft, part, dock);
  };
}

interface Mapping {
  readonly unmapped: Pose;
  readonly now: Pose;
  readonly map: Matrix;
}

function mapDock(dock: Dock, { unmapped, now, map }: Mapping): void {
  const { turn, shift } = numberedFrame(dock);
  const mapped = (point: Vec3) => carryBack(now, applyMatrix(map, carry(unmapped, point)));
  const direction = (by: Matrix, d: Vec3) =>
    unit(turnBack(now.turn, applyMatrix(by, turnVector(unmapped.turn, d))));
  // Directions out of a surface map by the inverse transposed; those along it by the map itself.
  const out = direction(transposed(inverseMatrix(map)), column(turn, 2));
  const roll = direction(map, column(turn, 0));
  Object.assign(dock, keptFrame({ turn: frameOut(out, roll), shift: mapped(shift) }));
  if (dock.on?.near) dock.on.near = [...mapped(dock.on.near)] as [number, number, number];
}

const SIDES: Readonly<Record<string, string>> = { left: 'right', right: 'left' };

/** A mirrored box is a box whose left is where its right was; the faces of others keep their names, or have numbers that cannot be kept. */
function mirrorNames(draft: KadrelDocument, part: Part, dock: Dock): void {
  if (!dock.on) return;
  const names = dock.on.at
    .split(MEETING)
    .map((meeting) => meeting.split(MERGED).map((name) => mirrorName(draft, part, name.trim())));
  if (names.flat().includes(undefined)) delete dock.on;
  else dock.on.at = names.map((merged) => merged.join(MERGED)).join(MEETING);
}

function mirrorName(draft: KadrelDocument, part: Part, name: string): string | undefined {
  const path = name.split('.');
  const role = path.at(-1)!;
  const { base } = ownerOf(draft, part, path.slice(0, -1)).recipe;
  const kind = base.kind === 'stretched' ? base.of.kind : base.kind;
  if (kind === 'prism' && !['top', 'bottom'].includes(role)) return undefined;
  return kind === 'box' && SIDES[role] ? [...path.slice(0, -1), SIDES[role]].join('.') : name;
}

/** Whose face a name is: the operand that it tells, else the first one all the way down. */
function ownerOf(draft: KadrelDocument, part: Part, path: readonly string[]): Part {
  let owner = path.map((id) => draft.items[id]).findLast((item) => item !== undefined) ?? part;
  while (owner.recipe.base.kind === 'combine') owner = draft.items[childrenOf(owner)[0]!]!;
  return owner;
}
