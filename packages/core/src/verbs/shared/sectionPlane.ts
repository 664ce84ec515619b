/** What the verbs share that lay section planes, or keep what is cut. */
import { isFlatPart } from '../../document/items.ts';
import type { Base, ItemId, KadrelDocument } from '../../document/schema.ts';
import { SECTION_VIEWS, type SectionView } from '../../recipes/bodies/section.ts';
import { roundPoint, type Pose } from '../../space/pose.ts';
import { refuse, type Refusal, type VerbContext } from '../../statement/declare.ts';
import { degreesOf } from '../../statement/planes.ts';
import { addPart } from './addPart.ts';

type SectionBase = Extract<Base, { kind: 'section' }>;

/** A section plane as a verb tells it; it cuts in the views that are said. */
interface Laid extends Pick<SectionBase, 'shows' | 'form' | 'depth' | 'size'> {
  readonly name: string;
  readonly pose: Pose;
  readonly cutsIn: (view: SectionView) => boolean;
  readonly whole?: readonly ItemId[] | undefined;
}

/** Puts a section plane into the document. */
export function addSectionPlane(
  draft: KadrelDocument,
  context: VerbContext,
  { name, pose, cutsIn, whole = [], ...told }: Laid,
): ItemId {
  const unseen = SECTION_VIEWS.filter((view) => !cutsIn(view)).map((view) => [view, false] as const);
  const id = addPart(draft, context, {
    name,
    base: {
      kind: 'section',
      ...told,
      fill: 'hatched',
      spacing: 0,
      ...Object.fromEntries(unseen),
      ...(whole.length > 0 ? { whole: [...whole] } : {}),
    },
    at: [...roundPoint(pose.shift)],
  });
  draft.items[id]!.placement.turn = degreesOf(pose);
  return id;
}

/** Why parts cannot be cut: one of them is drawn, and no solid. */
export function notSolid(draft: KadrelDocument, parts: readonly ItemId[] | undefined): Refusal | undefined {
  const flat = parts?.find((id) => isFlatPart(draft, draft.items[id]!));
  return flat === undefined ? undefined : refuse('flat.solid', { name: draft.items[flat]!.name }, 'parts');
}
