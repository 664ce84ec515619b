/** The built shapes that stand in the world, with a tree over them: what rays, snaps and regions search. */
import { buildBvh, mergedBvhs, type Bvh } from '../space/bvh.ts';
import { boxOf, carryBox, unionBoxes, type Box } from '../space/box.ts';
import { carry, type Pose } from '../space/pose.ts';
import type { Vec3 } from '../space/vector.ts';
import type { Cut } from '../sections/cuts.ts';
import type { SnapShape } from './shape.ts';

/** A built shape standing in the world for a part. */
export interface SnapInstance {
  readonly part: string;
  /** Of a pattern, which member; and the part whose recipe the solid has, where that is another. */
  readonly member?: string;
  readonly leaf?: string;
  readonly pose: Pose;
  readonly shape: SnapShape;
  /** The exact box in the part's own frame, mm; its 27 points can be caught. */
  readonly box?: Box;
  /** The part's datum in its own frame, mm. */
  readonly datum?: Vec3;
  /** The centre of mass in its own frame, mm. */
  readonly mass?: Vec3;
  /** Looked through: its edges and corners are caught, and its faces hide nothing. */
  readonly isOpen?: true;
}

/** Whose a snap on an instance is. */
export const whose = ({ part, member, leaf }: SnapInstance) => ({
  part,
  ...(member ? { member } : {}),
  ...(leaf === undefined || leaf === part ? {} : { leaf }),
});

/** The solid that a snap was caught on. */
export const instanceUnder = (
  { instances }: SnapScene,
  snap: { readonly part?: string; readonly member?: string; readonly leaf?: string },
): SnapInstance | undefined =>
  instances.find(
    ({ part, member, leaf }) => part === snap.part && member === snap.member && leaf === snap.leaf,
  );

/** Everything that can be caught. */
export interface SnapScene {
  readonly instances: readonly SnapInstance[];
  /** Boxes of the instances in the world. */
  readonly tree: Bvh;
  /** What section planes take out of sight in the view that is searched. */
  readonly cuts?: readonly Cut[];
}

/** A scene with nothing in it. */
export const NO_SCENE: SnapScene = { instances: [], tree: buildBvh(new Float64Array()) };

/** A scene of groups of solids, each of which is sorted once: of thousands of members that stay as they are, nothing is reckoned anew. */
export function groupedScene(groups: readonly (readonly SnapInstance[])[]): SnapScene {
  const trees = groups.map((group) => {
    const known = sorted.get(group) ?? snapScene(group).tree;
    sorted.set(group, known);
    return known;
  });
  return { instances: groups.flat(), tree: mergedBvhs(trees) };
}
const sorted = new WeakMap<readonly SnapInstance[], Bvh>();

/** A scene of these solids. */
export function snapScene(instances: readonly SnapInstance[]): SnapScene {
  const boxes = new Float64Array(6 * instances.length);
  instances.forEach((instance, i) => {
    const { min, max } = worldReach(instance);
    boxes.set(min, 6 * i);
    boxes.set(max, 6 * i + 3);
  });
  return { instances, tree: buildBvh(boxes) };
}

/** A box in the world round everything of an instance that can be met or caught. */
function worldReach({ pose, shape, box, datum }: SnapInstance): Box {
  const own = boxOfShape(shape);
  const reach = carryBox(pose, box ? unionBoxes([own, box])! : own);
  return datum ? boxOf([reach.min, reach.max, carry(pose, datum)]) : reach;
}

/** Thousands of members share one shape. */
const reaches = new WeakMap<SnapShape, Box>();

/** Round everything of a shape that can be met or caught, in its own frame. */
export function boxOfShape(shape: SnapShape): Box {
  const known = reaches.get(shape);
  if (known) return known;
  const roots = [shape.triangleTree, shape.pointTree, shape.curveTree].flatMap(({ bounds, order }) =>
    order.length === 0 ? [] : [boxFrom(bounds, 0)],
  );
  const found = boxOf(roots.flatMap(({ min, max }) => [min, max]));
  reaches.set(shape, found);
  return found;
}

function boxFrom(b: Float64Array, at: number): Box {
  return { min: [b[at]!, b[at + 1]!, b[at + 2]!], max: [b[at + 3]!, b[at + 4]!, b[at + 5]!] };
}
