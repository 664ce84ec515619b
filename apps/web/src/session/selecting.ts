/** Selecting by what parts are: like those that are selected, by name, all others, and what was selected or made before. */
import {
  buildName,
  DoubleFinder,
  carry,
  carryBox,
  isGroup,
  lineage,
  partsLeftOut,
  selectableOf,
  standingOf,
  partsLike,
  partsNamed,
  placedOf,
  undoStacks,
  visibleParts,
  type Edit,
  type ItemId,
  type KadrelDocument,
  type Likely,
  type Placed,
  type Likeness,
} from '@kadrel/core';
import { measuresOf, type Built } from './built.ts';

/** What selecting asks of the session. */
interface Selectable {
  readonly document: KadrelDocument;
  readonly built: Built;
  readonly edits: readonly Edit[];
  readonly selection: readonly ItemId[];
  readonly lastSelection: readonly ItemId[];
  readonly openGroup: ItemId | null;
}

/** What can be selected of standing items: closed groups as one, and with a group open only what is in it. */
function selectable({ document, openGroup }: Selectable, parts: readonly ItemId[]): ItemId[] {
  const inside = parts.filter((id) => openGroup === null || lineage(document, id).includes(openGroup));
  return [...new Set(inside.map((id) => selectableOf(document, id, openGroup)))];
}

/** Ways of selecting. */
export function selectingActions(get: () => Selectable, select: (parts: readonly ItemId[]) => void) {
  return {
    selectLike(how: Likeness): void {
      const state = get();
      select(partsLike(state.document, state.selection, how, (id) => measuresOf(state, id)?.box));
    },
    selectNamed: (text: string) => select(partsNamed(get().document, text)),
    selectOthers: () => {
      const { document, selection, openGroup } = get();
      const chosen = standingOf(document, selection);
      select(selectable(get(), partsLeftOut(document, [...chosen])).filter((id) => openGroup !== id));
    },
    selectAll: () =>
      select(
        selectable(
          get(),
          visibleParts(get().document).map(({ id }) => id),
        ),
      ),
    selectLast: () => select(get().lastSelection.filter((id) => get().document.items[id])),
    /** What the last statement made. */
    selectLastMade(): void {
      const { edits, document } = get();
      for (const id of [...undoStacks(edits).undo].reverse()) {
        const made = (edits.find((edit) => edit.id === id)?.patches ?? []).flatMap(({ op, path }) =>
          op === 'add' && path.length === 2 && path[0] === 'items' ? [String(path[1])] : [],
        );
        const standing = made.filter((one) => {
          const parent = document.items[one]?.parent;
          return parent === null || (parent !== undefined && isGroup(document.items[parent]!));
        });
        if (standing.length > 0) return select(standing);
      }
    },
  };
}

/** So many solids are looked at without a pause. */
const AT_ONCE = 200;

/** Solids that lie exactly on each other, as far as they are built; members of patterns too. It pauses now and then, and returns them at last. */
export function* findDoubles(document: KadrelDocument, built: Built): Generator<undefined, Likely[][]> {
  const finder = new DoubleFinder();
  let count = 0;
  for (const { id } of visibleParts(document)) {
    const placed = placedOf(document, id);
    yield;
    for (const one of placed) {
      const likely = likelyOf(id, one, built);
      if (likely) finder.add(likely);
      if (++count % AT_ONCE === 0) yield;
    }
  }
  return finder.found();
}

function likelyOf(part: ItemId, placed: Placed, built: Built): Likely | undefined {
  const key = built.parts[buildName(placed)]?.key;
  const measures = key === undefined ? undefined : built.factsOf(key)?.measures;
  if (!measures) return undefined;
  const { pose, member } = placed;
  const { volume, centroid, box } = measures;
  return {
    part,
    ...(member === '' ? {} : { member: member.split('.')[0]! }),
    volume,
    centroid: carry(pose, centroid),
    box: () => carryBox(pose, box),
  };
}

/** The statements that keep one of each: parts are deleted, members of patterns left out. */
export function withoutDoubles(groups: readonly (readonly Likely[])[]): readonly {
  readonly verb: string;
  readonly typed: Readonly<Record<string, unknown>>;
}[] {
  const gone = new Set<ItemId>();
  const out = new Map<ItemId, string[]>();
  for (const group of groups) {
    // A member of a pattern stays before a part by itself, so that the pattern stays whole.
    const ordered = [...group].sort(
      (a, b) => Number(b.member !== undefined) - Number(a.member !== undefined),
    );
    for (const { part, member } of ordered.slice(1)) {
      if (member === undefined) gone.add(part);
      else out.set(part, [...(out.get(part) ?? []), member]);
    }
  }
  return [
    ...(gone.size > 0 ? [{ verb: 'delete', typed: { parts: [...gone] } }] : []),
    ...[...out].map(([part, members]) => ({ verb: 'omit', typed: { part, members: members.join(', ') } })),
  ];
}
