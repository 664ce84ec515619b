/** What a new statement begins with: the selection, and the frame and the plane that were used last. */
import {
  ENTRY_KINDS,
  PLANES,
  partNamed,
  verbNamed,
  type Blank,
  type ItemId,
  type KadrelDocument,
  type Typed,
  type ViewState,
} from '@kadrel/core';
import { frameOfView, isFramed } from './frames.ts';
import { placesInto } from './places.ts';
import type { SessionState } from './state.ts';

/** What stands in the blanks of a verb when it is started. `view` is the view that one works in. */
export function filledFor(verbId: string, state: SessionState, view: ViewState | undefined): Typed {
  const { blanks } = verbNamed(verbId)!;
  return {
    ...rememberedFrame(verbId, state, view),
    ...(blanks.on?.type === 'plane' ? { on: rememberedPlane(state) } : {}),
    ...fromSelection(state, verbId),
    ...placesInto(verbId, state),
    ...fromSheet(state, verbId),
  };
}

/** The sheet that is open, and what is selected on it. */
function fromSheet({ openSheet, sheetEntry, document }: SessionState, verbId: string): Typed {
  const sheet = openSheet === null ? undefined : document.sheets[openSheet];
  if (!sheet) return {};
  const { blanks } = verbNamed(verbId)!;
  const fits = ({ type, among = ENTRY_KINDS }: Blank) =>
    type === 'entry' && sheetEntry !== null && among.some((kind) => sheet[kind][sheetEntry]);
  const entry = Object.keys(blanks).find((id) => fits(blanks[id]!));
  return {
    ...(blanks.sheet?.type === 'sheet' ? { sheet: sheet.id } : {}),
    ...(entry === undefined ? {} : { [entry]: sheetEntry }),
  };
}

/** The frame that a verb was last used with. */
export function rememberedFrame(
  verbId: string,
  { frames, document }: Pick<SessionState, 'frames' | 'document'>,
  view: ViewState | undefined,
): Typed {
  if (!isFramed(verbId)) return {};
  const kept = frames[verbId];
  // A frame that was picked goes with the part that it was picked on.
  const on = (kept as { on?: string } | null)?.on;
  if (on !== undefined && !document.items[on]) return { in: 'world' };
  return { in: kept === 'view' ? (view ? frameOfView(view) : 'world') : kept };
}

/** The plane that was drawn on last, unless it is gone. */
function rememberedPlane({ plane, document }: Pick<SessionState, 'plane' | 'document'>): unknown {
  const on = typeof plane === 'string' ? plane : (plane as { on?: string } | null)?.on;
  const isThere = on === undefined || on in PLANES || partNamed(document, on) !== undefined;
  return isThere ? plane : 'plan';
}

/** What is selected goes into the blanks for parts: all of it, or for a subtraction the first one into what is cut. */
export function fromSelection(
  { selection, document }: Pick<SessionState, 'selection' | 'document'>,
  verbId: string,
): Typed {
  if (selection.length === 0) return {};
  const { blanks } = verbNamed(verbId)!;
  const [first, ...others] = selection;
  const isProfile = (id: ItemId) => document.items[id]?.recipe.base.kind === 'profile';
  if (blanks.profiles) {
    const solids = selection.filter((id) => !isProfile(id));
    return {
      profiles: selection.filter(isProfile),
      ...(blanks.part && solids.length > 0 ? { part: solids[0] } : {}),
      ...(blanks.parts && solids.length > 0 ? { parts: solids } : {}),
    };
  }
  if (blanks.profile) {
    const cutter = (['by', 'to'] as const).find((id) => blanks[id]?.type === 'parts');
    const rest = others.filter(isProfile);
    return {
      ...(isProfile(first!) ? { profile: first } : {}),
      ...(cutter && rest.length > 0 ? { [cutter]: rest } : {}),
    };
  }
  if (blanks.section && blanks.path)
    return { section: first, ...(others.length > 0 ? { path: others[0] } : {}) };
  if (blanks.section) {
    const isSectionPlane = (id: ItemId) => document.items[id]?.recipe.base.kind === 'section';
    const planes = selection.filter(isSectionPlane);
    const parts = selection.filter((id) => !isSectionPlane(id));
    return { ...(planes.length > 0 ? { section: planes[0] } : {}), ...(parts.length > 0 ? { parts } : {}) };
  }
  if (blanks.from?.type === 'part' && blanks.parts)
    return { from: first, ...(others.length > 0 ? { parts: others } : {}) };
  // A line that was drawn for it is picked, and is none of the solids.
  if (blanks.parts && blanks.line?.type === 'path')
    return { parts: selection.filter((id) => !isProfile(id)) };
  if (blanks.parts) return { parts: [...selection] };
  return blanks.part?.type === 'part' ? { part: first } : {};
}

/** What stands in blanks for parts, without those that are gone. */
export function withoutGone(verbId: string, typed: Typed, { items }: KadrelDocument): Typed {
  const kept: Record<string, unknown> = { ...typed };
  for (const [id, { type }] of Object.entries(verbNamed(verbId)!.blanks)) {
    const value = typed[id];
    if (type === 'parts' && Array.isArray(value)) kept[id] = value.filter((one) => items[one as ItemId]);
    if (type === 'part' && typeof value === 'string' && !items[value]) kept[id] = undefined;
  }
  return kept;
}
