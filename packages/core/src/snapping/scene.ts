/** The built shapes that stand in the world, with a tree over them: what rays, snaps and regions search. */
import { buildBvh, type Bvh } from '../space/bvh.ts';
import { boxOf, carryBox, type Box } from '../space/box.ts';
import { carry, type Pose } from '../space/pose.ts';
import type { Vec3 } from '../space/vector.ts';
import type { SnapShape } from './shape.ts';

/** A built shape standing in the world for a part. */
export interface SnapInstance {
  readonly part: string;
  readonly pose: Pose;
  readonly shape: SnapShape;
  /** The exact box in the part's own frame, mm; its 27 points can be caught. */
  readonly box?: Box;
  /** The part's datum in its own frame, mm. */
  readonly datum?: Vec3;
  /** The centre of mass in its own frame, mm. */
  readonly mass?: Vec3;
}

export interface SnapScene {
  readonly instances: readonly SnapInstance[];
  /** Boxes of the instances in the world. */
  readonly tree: Bvh;
}

export const NO_SCENE: SnapScene = { instances: [], tree: buildBvh(new Float64Array()) };

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
  const roots = [shape.triangleTree, shape.pointTree, shape.curveTree].flatMap(({ bounds, order }) =>
    order.length === 0 ? [] : [boxFrom(bounds, 0)],
  );
  const boxes = [...roots, ...(box ? [box] : [])].map((own) => carryBox(pose, own));
  return boxOf([...boxes.flatMap(({ min, max }) => [min, max]), ...(datum ? [carry(pose, datum)] : [])]);
}

function boxFrom(b: Float64Array, at: number): Box {
  return { min: [b[at]!, b[at + 1]!, b[at + 2]!], max: [b[at + 3]!, b[at + 4]!, b[at + 5]!] };
}
