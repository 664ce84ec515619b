/** What is typed, picked and chosen goes into the blanks of the statement in hand. */
import { verbNamed, type ItemId, type ViewState } from '@kadrel/core';
import type { SessionCore } from './core.ts';
import { rememberedFrame } from './filling.ts';
import { gathersPoints } from './drawing.ts';
import { isFramed, keepFrames } from './frames.ts';
import { measureOf } from './measure.ts';
import { chosenRegions, isSameRegion, type ChosenRegion } from './regions.ts';
import {
  isHandled,
  exactMm,
  firstOpen,
  nextEntry,
  withChoice,
  withPart,
  withText,
  type Entry,
  type Statement,
  type Typed,
} from './statement.ts';

/** The blank that clicks add points to. */
function gatheringEntry(statement: Statement): Entry | null {
  const { blanks } = verbNamed(statement.verb)!;
  const found = Object.keys(blanks).find((id) => gathersPoints(statement, id));
  return found === undefined ? null : { blank: found, axis: null };
}

/** What fills the blanks of the statement in hand. */
export function editing(core: SessionCore, activeView: () => ViewState | undefined) {
  const { get, set } = core;

  const update = (change: (statement: Statement) => Statement): void => {
    const { statement } = get();
    if (statement && statement.phase !== 'working') set({ statement: { ...change(statement), waits: null } });
  };
  const setTyped = (typed: Typed) =>
    update((s) => ({ ...s, typed: { ...s.typed, ...typed }, refusal: null }));
  /** Set distance shows what is there, for typing over it. */
  const withMeasure = (statement: Statement): Statement => {
    if (!isHandled(statement, 'measures') || statement.held.has('distance')) return statement;
    const { document } = get();
    const found = measureOf(statement, document, core.worlds.of(document));
    return found
      ? { ...statement, typed: { ...statement.typed, distance: exactMm(found.distance) } }
      : statement;
  };

  return {
    update,
    withMeasure,
    type: (entry: Entry, text: string) => update((statement) => withText(statement, entry, text)),
    setBlank: (blank: string, value: unknown) =>
      update((s) => {
        const held = new Set([...s.held, blank]);
        const typed = { ...s.typed, [blank]: value };
        const chosen = withChoice({ ...s, typed, held, refusal: null }, blank);
        return blank === 'along' ? withMeasure(chosen) : chosen;
      }),
    ...drawingOn(core, { update, setTyped, activeView }),
    focus: (entry: Entry | null) =>
      update((statement) => ({ ...statement, focus: entry, isFocusGiven: false })),
    /** Puts a part into a blank for parts, or takes it out again. */
    choose: (blank: string, part: ItemId, how: 'toggle' | 'add' = 'toggle') =>
      update((statement) => withPart(statement, { blank, part, how })),
    walk: (step: 1 | -1) =>
      update((statement) => ({ ...statement, focus: nextEntry(statement, step), isFocusGiven: false })),
  };
}

interface Updating {
  readonly update: (change: (statement: Statement) => Statement) => void;
  readonly setTyped: (typed: Typed) => void;
  readonly activeView: () => ViewState | undefined;
}

/** Frames, planes and regions: what numbers refer to, and what is drawn on. */
function drawingOn({ get, set }: SessionCore, { update, setTyped, activeView }: Updating) {
  return {
    /** Sets a frame, and remembers it for the verb. `view` is the view that one works in. */
    setFrame(frame: unknown): void {
      const { statement, frames, projectId } = get();
      if (!statement || !isFramed(statement.verb)) return;
      const kept = { ...frames, [statement.verb]: frame };
      keepFrames(localStorage, projectId, kept);
      set({ frames: kept });
      const typed = rememberedFrame(statement.verb, get(), activeView());
      update((s) => ({ ...s, typed: { ...s.typed, ...typed }, picking: null, refusal: null }));
    },
    /** Sets the plane that is drawn on: of the statement in hand, and of those that follow. */
    setPlane(plane: unknown, blank = 'on'): void {
      const { statement } = get();
      const isDrawnOn = !statement || !verbNamed(statement.verb)!.blanks.on?.once;
      if (isDrawnOn) set({ plane });
      setTyped({ [blank]: plane });
      // What is drawn on it comes next.
      if (isDrawnOn) update((s) => ({ ...s, focus: gatheringEntry(s) ?? firstOpen(s) }));
    },
    /** Chooses a region for a blank, or lets go of it. */
    toggleRegion(blank: string, region: ChosenRegion): void {
      const chosen = chosenRegions(get().statement?.typed[blank]);
      const without = chosen.filter((one) => !isSameRegion(one, region));
      const next =
        without.length < chosen.length ? without : [...chosen, { at: region.at, curves: region.curves }];
      setTyped({ [blank]: next.length > 0 ? next : 'all' });
    },
  };
}
