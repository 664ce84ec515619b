/** A document's part → what there is to build, as plain data that says nothing of ids, names and colours. */
import {
  operandsOf,
  poseOfPlacement,
  valueOf,
  vectorOf,
  type ItemId,
  type KadrelDocument,
  type Matrix,
  type Pose,
  type SolidBase,
  type Vec3,
} from '@kadrel/core';
import type { CombineHow } from '@kadrel/core';

/** A plain solid. */
export type SolidContent =
  | { readonly kind: 'box'; readonly size: Vec3 }
  | { readonly kind: 'cylinder'; readonly diameter: number; readonly height: number }
  | { readonly kind: 'sphere'; readonly diameter: number };

export type Content =
  | SolidContent
  /** A plain solid under a linear map of its own frame, nine numbers row by row. */
  | { readonly kind: 'stretched'; readonly of: SolidContent; readonly by: Matrix }
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
  if (base.kind === 'stretched')
    return { kind: 'stretched', of: solidContent(base.of), by: base.by as unknown as Matrix };
  if (base.kind !== 'combine') return solidContent(base);
  const operands = operandsOf(part).map((operand) => ({
    tag: operand,
    pose: poseOfPlacement(document.items[operand]!.placement),
    content: contentOf(document, operand),
  }));
  return { kind: 'combine', how: base.how, operands };
}

function solidContent(base: SolidBase): SolidContent {
  if (base.kind === 'box') return { kind: 'box', size: vectorOf(base.size) };
  const diameter = valueOf(base.diameter);
  return base.kind === 'sphere'
    ? { kind: 'sphere', diameter }
    : { kind: 'cylinder', diameter, height: valueOf(base.height) };
}

/** Equal keys mean equal solids with equal names. Numbers are written so that they read back bit for bit. */
export function keyOf(content: Content): string {
  if (content.kind === 'box') return `box(${content.size.join(',')})`;
  if (content.kind === 'cylinder') return `cylinder(${content.diameter},${content.height})`;
  if (content.kind === 'sphere') return `sphere(${content.diameter})`;
  if (content.kind === 'stretched') return `stretched(${content.by.join(',')};${keyOf(content.of)})`;
  const operands = content.operands.map(
    ({ tag, pose, content: inner }, i) =>
      `${i === 0 ? '' : tag}@${pose.shift.join(',')}/${pose.turn.join(',')}:${keyOf(inner)}`,
  );
  return `${content.how}(${operands.join(';')})`;
}
