/** The pointer and the keys on the paper: clicks, drags of what stands on it, and of the paper itself. */
import type { Sheet, Vec2 } from '@kadrel/core';
import { useEffect, useRef, useState, type KeyboardEvent, type PointerEvent, type RefObject } from 'react';
import { nearestCatch, type Caught, type OnPaper as ViewOnPaper } from '../../session/onSheet.ts';
import { exactMm, type Statement } from '../../session/statement.ts';
import type { Session } from '../../session/store.ts';
import { clickOnSheet, isGathering, nextCatch } from './clicking.ts';
import { DimensionPreview } from './dimensionPreview.ts';
import { showCatch, showShift } from './PaperMarks.tsx';
import type { Zoom } from './useZoom.ts';

/** Pixels that a press may wander and still be a click. */
const CLICK_PX = 4;
/** Pixels from which a point is caught. */
const REACH_PX = 12;
/** Of a view that is not there any more. */
const NOWHERE: ViewOnPaper = { at: [0, 0], scale: 1 };

export interface Drag {
  /** What was under the press. */
  readonly entry: string | null;
  /** On the paper, mm. */
  readonly from: Vec2;
  readonly pixel: Vec2;
  /** How far it has been moved, mm. */
  readonly by: Vec2;
  readonly hasMoved: boolean;
}

export interface OnPaper {
  readonly session: Session;
  readonly sheet: Sheet;
  readonly statement: Statement | null;
  readonly selected: string | null;
  readonly catches: readonly Caught[];
  readonly zoom: Zoom;
  /** The drawing. */
  readonly svg: RefObject<SVGSVGElement | null>;
}

type Press = PointerEvent<HTMLDivElement>;
const pixelOf = (event: Press): Vec2 => [event.clientX, event.clientY];

export function usePaperHand(on: OnPaper) {
  const { sheet, statement, catches, zoom } = on;
  const drag = useRef<Drag | null>(null);
  const isPicking = isGathering(statement);
  const { hovered, hover } = useHover(on, isPicking ? 'picking' : 'idle');
  const catchAt = (place: Vec2) => {
    const viewOf = (view: string) => sheet.views[view] ?? NOWHERE;
    return nearestCatch(catches, { place, reach: REACH_PX / zoom.pixelsPerMm(), viewOf }) ?? null;
  };
  const onPointerDown = (event: Press) => {
    if (event.button > 1) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    event.currentTarget.focus({ preventScroll: true });
    const pixel = pixelOf(event);
    const entry = event.button === 0 ? entryUnder(pixel) : null;
    drag.current = { entry, from: zoom.placeOf(pixel), pixel, by: [0, 0], hasMoved: false };
  };
  const onPointerMove = (event: Press) => {
    const pixel = pixelOf(event);
    if (drag.current) drag.current = dragged({ drag: drag.current, pixel, isPicking }, on);
    else if (isPicking) {
      const place = zoom.placeOf(pixel);
      hover(catchAt(place), place);
    }
  };
  const onPointerUp = () => {
    const done = drag.current;
    drag.current = null;
    if (done) letGo(done, isPicking ? catchAt(done.from) : null, on);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const hovering = { hovered: hovered.current, setHovered: hover };
    if (event.target !== event.currentTarget || !keyDone(event, on, hovering)) return;
    event.preventDefault();
    event.stopPropagation();
  };
  return { isPicking, handlers: { onPointerDown, onPointerMove, onPointerUp, onKeyDown } };
}

/** A drag puts what it was of elsewhere; a click is for the statement in hand, or selects. */
function letGo({ entry, from, by, hasMoved }: Drag, caught: Caught | null, on: OnPaper): void {
  const { session } = on;
  if (hasMoved && (by[0] !== 0 || by[1] !== 0)) shiftEntry(on, entry!, by);
  if (hasMoved) return;
  const isTaken = clickOnSheet(session, { place: from, caught });
  if (!isTaken) session.set({ sheetEntry: entry });
}

/** What is caught under the pointer, shown while something is picked, with the dimension that a click would make. */
function useHover({ session, sheet, statement, svg, zoom }: OnPaper, hand: 'picking' | 'idle') {
  const hovered = useRef<Caught | null>(null);
  const [preview] = useState(() => new DimensionPreview(session));
  const hover = (caught: Caught | null, place: Vec2 | null = caught && caught.at) => {
    hovered.current = caught;
    if (!svg.current) return;
    showCatch(svg.current, caught, zoom.pixelsPerMm());
    if (place) preview.show({ svg: svg.current, sheet, statement: statement! }, { caught, place });
  };
  useEffect(() => {
    if (hand === 'picking' || !svg.current) return;
    hovered.current = null;
    showCatch(svg.current, null, 1);
    preview.clear(svg.current);
  }, [hand, svg, preview]);
  return { hovered, hover };
}

interface Dragging {
  readonly drag: Drag;
  readonly pixel: Vec2;
  readonly isPicking: boolean;
}

/** What can be moved goes with the pointer; otherwise the paper does. */
function dragged({ drag, pixel, isPicking }: Dragging, { sheet, zoom, svg }: OnPaper): Drag {
  const away: Vec2 = [pixel[0] - drag.pixel[0], pixel[1] - drag.pixel[1]];
  if (!drag.hasMoved && Math.hypot(...away) <= CLICK_PX) return drag;
  if (isMovable(sheet, drag.entry) && !isPicking) {
    const place = zoom.placeOf(pixel);
    const by: Vec2 = [place[0] - drag.from[0], place[1] - drag.from[1]];
    showShift(svg.current!, drag.entry!, by);
    return { ...drag, hasMoved: true, by };
  }
  zoom.shift(away);
  return { ...drag, hasMoved: true, pixel };
}

const tenth = (mm: number) => Math.round(mm * 10) / 10;

function shiftEntry({ session, sheet, svg }: OnPaper, entry: string, by: Vec2): void {
  const [x, y] = (sheet.views[entry] ?? sheet.notes[entry])!.at;
  session.set({ sheetEntry: entry });
  const typed = { sheet: sheet.id, entry, x: exactMm(tenth(x + by[0])), y: exactMm(tenth(y + by[1])) };
  // It is drawn where it stands now, or, where that was refused, where it stood.
  void session.say('place-on-sheet', typed).then(() => svg.current && showShift(svg.current, entry, null));
}

const isMovable = ({ views, notes }: Sheet, entry: string | null): boolean =>
  entry !== null && (views[entry] !== undefined || notes[entry] !== undefined);

/** What is drawn under a pixel, or a little beside it: lines are thin. What lies before is found first. */
function entryUnder([x, y]: Vec2): string | null {
  for (const [dx, dy] of BESIDE_PX) {
    const under = document.elementsFromPoint(x + dx, y + dy);
    const found = under.map((one) => one.closest('[data-entry]')).find((one) => one !== null);
    if (found) return found.getAttribute('data-entry');
  }
  return null;
}
const BESIDE_PX = [
  [0, 0],
  [3, 0],
  [-3, 0],
  [0, 3],
  [0, -3],
] as const;

// Keys.

/** mm on paper. */
const STEPS: Readonly<Record<string, Vec2>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};
const MANY = 10;

interface Hovering {
  readonly hovered: Caught | null;
  readonly setHovered: (caught: Caught | null) => void;
}

/** Whether the key was one of the paper’s. */
function keyDone(event: KeyboardEvent, on: OnPaper, hovering: Hovering): boolean {
  const step = STEPS[event.key];
  if (step) return stepped(event, on, hovering);
  if (isGathering(on.statement)) return pickedByKey(event, on, hovering) || zoomedByKey(event, on);
  const { session, sheet, selected, statement } = on;
  if (event.key === 'Delete' && selected !== null) {
    void session.say('take-off-sheet', { sheet: sheet.id, entry: selected });
    return true;
  }
  if (event.key === 'Escape' && !statement && selected !== null) {
    session.set({ sheetEntry: null });
    return true;
  }
  return zoomedByKey(event, on);
}

function stepped(event: KeyboardEvent, on: OnPaper, { hovered, setHovered }: Hovering): boolean {
  const [x, y] = STEPS[event.key]!;
  if (isGathering(on.statement)) {
    setHovered(nextCatch(on.catches, hovered, [x, y]));
    return true;
  }
  if (!isMovable(on.sheet, on.selected)) return false;
  const by = event.shiftKey ? MANY : 1;
  shiftEntry(on, on.selected!, [x * by, y * by]);
  return true;
}

function pickedByKey({ key }: KeyboardEvent, { session }: OnPaper, { hovered }: Hovering): boolean {
  if (key !== ' ' || !hovered) return false;
  return clickOnSheet(session, { place: hovered.at, caught: hovered });
}

function zoomedByKey({ key }: KeyboardEvent, { zoom }: OnPaper): boolean {
  if (key === '+' || key === '-') zoom.by(key === '+' ? 1.25 : 0.8);
  else if (key === 'Home') zoom.fit();
  else return false;
  return true;
}
