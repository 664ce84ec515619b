/** What is selected and looked at, and how the pointer catches; none of it is stored in the project. */
import type { ItemId, ViewState } from '@kadrel/core';
import type { SessionCore } from './core.ts';
import type { Manner } from './manner.ts';
import { hiddenSelected, type SessionState } from './state.ts';
import { openOne } from './statement.ts';

/** What a control may set just so. */
type Settable = Pick<
  SessionState,
  | 'snapKinds'
  | 'seeThrough'
  | 'forced'
  | 'name'
  | 'isSelectOnly'
  | 'arePinsShown'
  | 'areDocksShown'
  | 'stepsFrom'
  | 'gripScale'
  | 'member'
  | 'omitting'
  | 'findsAhead'
  | 'sheetEntry'
  | 'isCarrying'
>;

/** What is selected and looked at. */
export function looking({ get, set, rebuild }: SessionCore) {
  /** The view that one works in, as the stage tells it. */
  let activeView: () => ViewState | undefined = () => undefined;

  function select(selection: readonly ItemId[]): void {
    const before = get().selection;
    const isOther = before.length !== selection.length || before.some((id) => !selection.includes(id));
    const { member, omitting } = get();
    const [only] = selection.length === 1 ? selection : [];
    set({
      selection,
      places: null,
      member: member?.part === only ? member : null,
      omitting: omitting === only ? omitting : null,
      ...(isOther && before.length > 0 ? { lastSelection: before } : {}),
    });
    if (hiddenSelected(get()).length > 0) void rebuild();
  }

  return {
    select,
    /** Shows the model as it was after so many statements; null for now. */
    lookAt(count: number | null): void {
      const { statement, setAside } = get();
      set({ lookingAt: count, statement: null, setAside: openOne(statement) ?? setAside });
      void rebuild();
    },
    /** Shows a drawing sheet instead of the views; null shows the views again. */
    openSheet: (openSheet: ItemId | null) => set({ openSheet, sheetEntry: null }),
    setManner: (change: Partial<Manner>) => set({ manner: { ...get().manner, ...change } }),
    set: (change: Partial<Settable>) => set(change),
    /** Says something to those who listen to the screen, and shows it for a while. */
    announce: (announced: string) => set({ announced }),
    /** Where the stage tells which view one works in. */
    watchView(view: () => ViewState | undefined): void {
      activeView = view;
    },
    activeView: () => activeView(),
  };
}
