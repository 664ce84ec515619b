/** The union of boxes whose sides are parallel: the same solid, with the same names, as the general way gives, without any cutting. */
import { ORIGIN, carryBox, chain, inverse, isQuarterTurn, type Pose, type Vec3 } from '@kadrel/core';
import type { Content } from '../content/content.ts';
import { moved, type Occt } from '../occt/occt.ts';
import type { NamedShape } from '../naming/named.ts';
import { closedFlat } from './closedFlat.ts';
import { unitedBlocks, type Block } from './blockCells.ts';
import type { FlatFace } from './flatFaces.ts';

type Combination = Extract<Content, { kind: 'combine' }>;

/** In the frame of the first box. */
interface United {
  readonly pose: Pose;
  readonly faces: readonly FlatFace[];
  /** mm³ */
  readonly volume: number;
}

const NAMES = [
  { min: 'left', max: 'right' },
  { min: 'front', max: 'back' },
  { min: 'bottom', max: 'top' },
] as const;

/** What boxes come to when a union is of nothing else; undefined for the general way. */
export function blocksOf({ how, operands }: Combination): United | undefined {
  const [first] = operands;
  if (how !== 'union' || !first || operands.some(({ content }) => content.kind !== 'box')) return undefined;
  const firstFromOuter = inverse(first.pose);
  const blocks: Block[] = [];
  for (const { tag, pose, content } of operands) {
    const local = chain(firstFromOuter, pose);
    if (content.kind !== 'box' || !isQuarterTurn(local.turn)) return undefined;
    blocks.push(blockOf(content.size, local, tag));
  }
  const united = unitedBlocks(blocks);
  return united && { ...united, pose: first.pose };
}

function blockOf(size: Vec3, pose: Pose, tag: string): Block {
  const { turn } = pose;
  return {
    ...carryBox(pose, { min: ORIGIN, max: size }),
    nameOf: (axis, side) => {
      const own = [0, 1, 2].find((i) => turn[3 * axis + i] !== 0)!;
      const isSame = turn[3 * axis + own]! > 0;
      const name = NAMES[own]![isSame === (side === 'max') ? 'max' : 'min'];
      return tag === '' ? name : `${tag}.${name}`;
    },
  };
}

/** Undefined where they do not make one solid. */
export function buildBlocks(occt: Occt, { faces, pose }: United): NamedShape | undefined {
  const made = closedFlat(occt, faces);
  if (!made) return undefined;
  try {
    return { ...made, shape: moved(occt, made.shape, pose) };
  } finally {
    made.shape.delete();
  }
}
