/** What Move and Land share: which own axis turns to the way out of the surface that a part lands on. */
import { worldFromPart } from '../../document/items.ts';
import type { ItemId, KadrelDocument } from '../../document/schema.ts';
import { column, turnBetween } from '../../space/matrix.ts';
import type { Turn } from '../../space/pose.ts';
import { scale, type Vec3 } from '../../space/vector.ts';

export const FACINGS = {
  'as-is': 'nothing',
  z: 'Z',
  '-z': '−Z',
  x: 'X',
  '-x': '−X',
  y: 'Y',
  '-y': '−Y',
} as const;

/** The smallest turn that brings a part's own axis to a direction; undefined when it keeps its attitude. */
export function turnToFace(
  document: KadrelDocument,
  part: ItemId,
  { facing, normal }: { readonly facing: string; readonly normal: Vec3 },
): Turn | undefined {
  if (facing === 'as-is') return undefined;
  const axis = ['x', 'y', 'z'].indexOf(facing.at(-1)!) as 0 | 1 | 2;
  const own = column(worldFromPart(document, part).turn, axis);
  return turnBetween(
    facing.startsWith('-') ? (scale(own, -1).map((n) => n + 0) as unknown as Vec3) : own,
    normal,
  );
}
