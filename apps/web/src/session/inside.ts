/** Working inside: the open group, and single members of a pattern. */
import { isLeftOut, memberNamed, type ItemId, type KadrelDocument } from '@kadrel/core';

/** Where one works inside something. */
interface Inside {
  readonly openGroup: ItemId | null;
  readonly omitting: ItemId | null;
  readonly member: { readonly part: ItemId; readonly label: string } | null;
}

interface Around {
  readonly state: () => Inside & { readonly document: KadrelDocument };
  readonly set: (change: { readonly openGroup: ItemId | null }) => void;
  readonly select: (parts: readonly ItemId[]) => void;
  readonly say: (verb: string, typed: Readonly<Record<string, unknown>>) => Promise<boolean>;
}

/** Going into groups and out of them. */
export function insideActions({ state, set, select, say }: Around) {
  return {
    /** Opens a group for work inside, or closes the open one. */
    openGroup(group: ItemId | null): void {
      const { openGroup, document } = state();
      if (group === openGroup) return;
      set({ openGroup: group });
      // What was open is selected when it is closed, as it was before.
      select(group === null && openGroup !== null && document.items[openGroup] ? [openGroup] : []);
    },
    /** Leaves a member of a pattern out, or puts it back. */
    toggleMember(part: ItemId, label: string): Promise<boolean> {
      const { base } = state().document.items[part]!.recipe;
      const key = base.kind === 'pattern' ? memberNamed(base.layout, label) : undefined;
      if (base.kind !== 'pattern' || !key) return Promise.resolve(false);
      return say('omit', { part, members: label, state: isLeftOut(base, key) ? 'back' : 'out' });
    },
  };
}

/** The open group and the pattern at work, where they are still there. */
export const keptPlaces = ({ openGroup, omitting, member }: Inside, document: KadrelDocument): Inside => ({
  openGroup: openGroup !== null && document.items[openGroup] ? openGroup : null,
  omitting: omitting !== null && document.items[omitting] ? omitting : null,
  member: member && document.items[member.part] ? member : null,
});
