/** A document's part → what there is to build, as plain data that says nothing of ids, names and colours. */
import {
  operandsOf,
  poseOfPlacement,
  valueOf,
  vectorOf,
  type ItemId,
  type KadrelDocument,
  type Pose,
  type Vec3,
} from '@kadrel/core';
import type { CombineHow } from '@kadrel/core';

export type Content =
  | { readonly kind: 'box'; readonly size: Vec3 }
  | { readonly kind: 'cylinder'; readonly diameter: number; readonly height: number }
  | { readonly kind: 'combine'; readonly how: CombineHow; readonly operands: readonly OperandContent[] };

export interface OperandContent {
  /** Put before the names of its faces, except for the first operand's. */
  readonly tag: string;
  readonly pose: Pose;
  readonly content: Content;
}

/** What the part is made of, in its own frame. */
export function contentOf(document: KadrelDocument, id: ItemId): Content {
  const part = document.items[id]!;
  const { base } = part.recipe;
  if (base.kind === 'box') return { kind: 'box', size: vectorOf(base.size) };
  if (base.kind === 'cylinder')
    return { kind: 'cylinder', diameter: valueOf(base.diameter), height: valueOf(base.height) };
  const operands = operandsOf(part).map((operand) => ({
    tag: operand,
    pose: poseOfPlacement(document.items[operand]!.placement),
    content: contentOf(document, operand),
  }));
  return { kind: 'combine', how: base.how, operands };
}

/** Equal keys mean equal solids with equal names. Numbers are written so that they read back bit for bit. */
export function keyOf(content: Content): string {
  if (content.kind === 'box') return `box(${content.size.join(',')})`;
  if (content.kind === 'cylinder') return `cylinder(${content.diameter},${content.height})`;
  const operands = content.operands.map(
    ({ tag, pose, content: inner }, i) =>
      `${i === 0 ? '' : tag}@${pose.shift.join(',')}/${pose.turn.join(',')}:${keyOf(inner)}`,
  );
  return `${content.how}(${operands.join(';')})`;
}
