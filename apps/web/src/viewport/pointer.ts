/**
 * What the pointer does in a view. One situation at a time; each press, move and release leads to the next. Navigation
 * with the other buttons and the wheel works in every situation and never ends one.
 */
import {
  MEETING,
  along,
  formatLength,
  nearestGridPoint,
  nearestOnLine,
  partsInRectangle,
  pointOnRay,
  rayThrough,
  rayToPlane,
  readableName,
  subtract,
  toStep,
  verbNamed,
  type ItemId,
  type Snap,
  type Vec3,
} from '@kadrel/core';
import { live } from '../session/live.ts';
import { exactMm, lockedAxis, withPointer, type Statement } from '../session/statement.ts';
import type { Grip } from './overlay.ts';
import type { Viewport } from './viewport.ts';

/** A press that moves less than this is a click. */
const CLICK_PX = 4;
const ZOOM_PER_WHEEL = 1.0015;
const AXES: readonly Vec3[] = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
];

type Situation =
  | { readonly at: 'idle' }
  | {
      readonly at: 'navigating';
      readonly how: 'orbit' | 'pan';
      readonly x: number;
      readonly y: number;
      readonly then: Situation;
    }
  | { readonly at: 'pressed'; readonly x: number; readonly y: number }
  | { readonly at: 'rectangle'; readonly x: number; readonly y: number }
  | {
      readonly at: 'gripping';
      readonly grip: Grip;
      readonly from: Vec3;
      readonly offset: Vec3;
      readonly parts: readonly ItemId[];
    }
  /** Making: the base is drawn from `corner`; `held` while the button is down. */
  | {
      readonly at: 'base';
      readonly corner: Vec3;
      readonly held: boolean;
      readonly x: number;
      readonly y: number;
    }
  | { readonly at: 'height'; readonly corner: Vec3; readonly other: Vec3 };

/** A point under the pointer, caught or free. */
interface Caught {
  readonly point: Vec3;
  readonly snap: Snap | null;
}

export function connectPointer(viewport: Viewport, host: HTMLElement): () => void {
  const { session, overlay, picture } = viewport;
  const state = () => session.store.getState();
  let situation: Situation = { at: 'idle' };
  let last = { x: 0, y: 0, ctrl: false, shift: false };
  let hoverFrame = 0;

  const place = (event: MouseEvent) => {
    const { left, top } = host.getBoundingClientRect();
    return {
      x: event.clientX - left,
      y: event.clientY - top,
      ctrl: event.ctrlKey || event.metaKey,
      shift: event.shiftKey,
    };
  };
  const openStatement = (): Statement | null => {
    const { statement } = state();
    return statement?.phase === 'open' ? statement : null;
  };

  /** The blank of a point that the pointer is asked for, when no other field has been chosen. */
  function pickedBlank(statement: Statement): 'from' | 'to' | null {
    if (statement.verb !== 'move' || !(statement.typed.parts as unknown[] | undefined)?.length) return null;
    const { focus, typed } = statement;
    if (focus?.blank === 'from' || focus?.blank === 'to') return focus.blank;
    // With the field of an axis in focus the pick goes on, locked to that axis.
    if (focus?.blank === 'by' && typed.from !== undefined && typed.to === undefined) return 'to';
    return null;
  }
  const isMaking = (statement: Statement | null): statement is Statement =>
    statement !== null && (statement.verb === 'box' || statement.verb === 'cylinder');
  const asksForParts = (statement: Statement | null) => {
    const blank = statement?.focus && verbNamed(statement.verb)?.blanks[statement.focus.blank];
    return blank?.type === 'parts' || blank?.type === 'part' ? statement!.focus!.blank : null;
  };

  /** What is under the pointer: a snap, else a point of the ground on the grid. */
  function catchPoint(x: number, y: number, ctrl: boolean, without?: ReadonlySet<ItemId>): Caught | null {
    const snap = ctrl ? null : viewport.snapAt(x, y, without);
    if (snap) return { point: snap.point, snap };
    const ray = rayThrough(viewport.camera, x, y);
    const ground = { point: [0, 0, 0], normal: [0, 0, 1] } as const;
    const far = rayToPlane(ray, ground);
    if (far === undefined || far < 0) return null;
    const free = pointOnRay(ray, far);
    return { point: ctrl ? free : nearestGridPoint(free, ground, state().document.scene.grid), snap: null };
  }

  const words = (point: Vec3) =>
    point.map((n) => formatLength(n, { ...state().document.scene, trailingZeros: true })).join('  ');
  const featureOf = (snap: Snap) =>
    snap.feature === undefined ? '' : readableName(snap.feature, state().document).replaceAll(MEETING, ' · ');
  const nameOf = (snap: Snap) =>
    snap.part === undefined ? '' : (state().document.items[snap.part]?.name ?? '');

  function showCaught(caught: Caught | null): void {
    if (!caught) overlay.showSnap(null);
    else if (caught.snap)
      overlay.showSnap(
        caught.snap,
        caught.snap.kind,
        [nameOf(caught.snap), featureOf(caught.snap)].filter(Boolean).join(' · '),
        words(caught.point),
      );
    else overlay.showSnap({ point: caught.point }, 'ground', '', words(caught.point));
  }

  const labelOf = ({ snap }: Caught) =>
    snap?.part === undefined ? undefined : `${snap.kind} of ${nameOf(snap)}`;

  /** Tells the bar's fields what the drag makes of them; fields that were typed keep their text. */
  function tell(statement: Statement, blank: string, numbers: readonly number[]): void {
    const { scene } = state().document;
    numbers.forEach((n, axis) => {
      const key = numbers.length === 1 ? blank : `${blank}.${axis}`;
      if (!statement.held.has(key)) live.tell(key, formatLength(n, scene));
    });
  }

  // --- Moving -------------------------------------------------------------------------------------------------------

  const movedParts = () => new Set((openStatement()?.typed.parts as ItemId[] | undefined) ?? []);

  /** The shift that a motion comes to: kept to the locked axis, and to the numbers typed by hand. */
  function shiftOf(statement: Statement, wanted: Vec3, axes: readonly number[] = [0, 1, 2]): Vec3 {
    const locked = lockedAxis(statement);
    const read = (axis: number) => numberIn(statement, `by.${axis}`, axis);
    return [0, 1, 2].map((axis) => {
      const typed = read(axis);
      if (typed !== undefined) return typed;
      return (locked === null || locked === axis) && axes.includes(axis) ? wanted[axis]! : 0;
    }) as unknown as Vec3;
  }

  function numberIn(statement: Statement, key: string, axis: number): number | undefined {
    if (!statement.held.has(key)) return undefined;
    return session.readLength(String((statement.typed.by as unknown[])[axis]));
  }

  function gripMotion(
    { grip, from, offset, parts }: Extract<Situation, { at: 'gripping' }>,
    { x, y, ctrl }: typeof last,
  ): Vec3 | null {
    const ray = rayThrough(viewport.camera, x, y);
    const step = state().document.scene.grid;
    const { snapKinds } = state();
    const snap = ctrl ? null : viewport.snapAt(x, y, new Set(parts));
    const pointSnap =
      snap && snap.kind !== 'on face' && snap.kind !== 'grid' && snapKinds.has(snap.kind) ? snap : null;
    if (pointSnap) {
      overlay.showSnap(pointSnap, pointSnap.kind, nameOf(pointSnap), words(pointSnap.point));
      return subtract(pointSnap.point, from).map((n, axis) =>
        grip.axes.includes(axis as 0) ? n : 0,
      ) as unknown as Vec3;
    }
    overlay.showSnap(null);
    const rounded = (n: number) => (ctrl ? n : toStep(n, step));
    if (grip.axes.length === 1) {
      const axis = grip.axes[0]!;
      const s = nearestOnLine(from, AXES[axis]!, ray);
      return s === undefined ? null : along([0, 0, 0], AXES[axis]!, rounded(s - offset[axis]));
    }
    const normal = AXES[[0, 1, 2].find((axis) => !grip.axes.includes(axis as 0))!]!;
    const far = rayToPlane(ray, { point: from, normal });
    if (far === undefined) return null;
    const raw = subtract(subtract(pointOnRay(ray, far), from), offset);
    return raw.map((n, axis) => (grip.axes.includes(axis as 0) ? rounded(n) : 0)) as unknown as Vec3;
  }

  function startGrip(grip: Grip, x: number, y: number): void {
    const from = viewport.anchor();
    if (!from) return;
    const { selection, statement } = state();
    if (statement?.verb !== 'move' || statement.phase !== 'open') session.start('move');
    const [only] = grip.axes;
    session.focus({ blank: 'by', axis: grip.axes.length === 1 ? only! : null });
    session.update((s) => ({ ...s, typed: { ...s.typed, from: undefined, to: undefined } }));
    const ray = rayThrough(viewport.camera, x, y);
    // Where the pointer took hold, so that nothing jumps when the drag begins.
    const hold =
      grip.axes.length === 1
        ? along([0, 0, 0], AXES[only!]!, nearestOnLine(from, AXES[only!]!, ray) ?? 0)
        : subtract(
            pointOnRay(
              ray,
              rayToPlane(ray, {
                point: from,
                normal: AXES[[0, 1, 2].find((a) => !grip.axes.includes(a as 0))!]!,
              }) ?? 0,
            ),
            from,
          );
    situation = { at: 'gripping', grip, from, offset: hold, parts: selection };
    overlay.setGrips(from, grip);
  }

  function dragGrip(gripping: Extract<Situation, { at: 'gripping' }>): void {
    const statement = openStatement();
    const wanted = statement && gripMotion(gripping, last);
    if (!statement || !wanted) return;
    const by = shiftOf(statement, wanted, gripping.grip.axes);
    picture.shift(gripping.parts, by);
    overlay.setGrips(
      [gripping.from[0] + by[0], gripping.from[1] + by[1], gripping.from[2] + by[2]],
      gripping.grip,
    );
    tell(statement, 'by', by);
    viewport.invalidate();
  }

  function endGrip(gripping: Extract<Situation, { at: 'gripping' }>): void {
    const statement = openStatement();
    const wanted = statement && gripMotion(gripping, last);
    situation = { at: 'idle' };
    overlay.showSnap(null);
    if (!statement || !wanted) return endPreview(gripping.parts);
    const by = shiftOf(statement, wanted, gripping.grip.axes);
    if (by.every((n) => n === 0)) {
      session.leave();
      return endPreview(gripping.parts);
    }
    session.update((s) => withPointer(s, 'by', by));
    void session.commit().then((done) => {
      if (!done) endPreview(gripping.parts);
    });
  }

  function endPreview(parts: Iterable<ItemId>): void {
    if (picture.shift(parts, [0, 0, 0])) viewport.invalidate();
    overlay.showRubber(null, null);
    viewport.showGrips();
  }

  function previewPick(statement: Statement, caught: Caught | null): void {
    const from = pointOf(statement, 'from');
    if (pickedBlank(statement) !== 'to' || !from || !caught) return;
    const by = shiftOf(statement, subtract(caught.point, from));
    const parts = [...movedParts()];
    picture.shift(parts, by);
    overlay.setGrips(null);
    overlay.showRubber(from, [from[0] + by[0], from[1] + by[1], from[2] + by[2]]);
    tell(statement, 'by', by);
    viewport.invalidate();
  }

  function pointOf(statement: Statement, blank: string): Vec3 | null {
    const value = statement.typed[blank];
    if (!Array.isArray(value) || value.length !== 3) return null;
    const numbers = value.map((text) => session.readLength(String(text)));
    return numbers.every((n) => n !== undefined) ? (numbers as unknown as Vec3) : null;
  }

  function pick(statement: Statement, blank: 'from' | 'to', caught: Caught): void {
    if (blank === 'from') {
      session.update((s) => ({
        ...withPointer(s, 'from', caught.point, labelOf(caught)),
        focus: { blank: 'to', axis: null },
      }));
      return;
    }
    const from = pointOf(statement, 'from');
    const locked = lockedAxis(statement);
    const numbers = [0, 1, 2].some((axis) => statement.held.has(`by.${axis}`));
    if (from && numbers) {
      // A number typed during the pick goes before the point: the move is then told by X, Y and Z.
      const by = shiftOf(statement, subtract(caught.point, from));
      session.update((s) => ({
        ...withPointer({ ...s, held: new Set() }, 'by', by),
        held: new Set(),
        typed: { ...s.typed, from: undefined, to: undefined, by: by.map(exactMm) },
      }));
    } else
      session.update((s) => {
        const picked = withPointer(s, 'to', caught.point, labelOf(caught));
        return locked === null ? picked : { ...picked, typed: { ...picked.typed, along: 'xyz'[locked] } };
      });
    overlay.showRubber(null, null);
    overlay.showSnap(null);
    const parts = [...movedParts()];
    void session.commit().then((done) => {
      if (!done) endPreview(parts);
    });
  }

  // --- Making -------------------------------------------------------------------------------------------------------

  /** Where a typed size keeps the drag, or undefined. */
  function typedSize(statement: Statement, blank: string, axis: number | null): number | undefined {
    const key = axis === null ? blank : `${blank}.${axis}`;
    if (!statement.held.has(key)) return undefined;
    const value = statement.typed[blank];
    return session.readLength(String(axis === null ? value : (value as unknown[])[axis]));
  }

  function baseOf(statement: Statement, corner: Vec3, pointer: Vec3): { at: Vec3; size: Vec3; other: Vec3 } {
    if (statement.verb === 'cylinder') {
      const radius = typedSize(statement, 'radius', null);
      const across =
        typedSize(statement, 'diameter', null) ??
        (radius === undefined ? 2 * Math.hypot(pointer[0] - corner[0], pointer[1] - corner[1]) : 2 * radius);
      return { at: corner, size: [across, across, 0], other: pointer };
    }
    const reach = (axis: 0 | 1) => {
      const drawn = pointer[axis] - corner[axis];
      const typed = typedSize(statement, 'size', axis);
      return typed === undefined ? drawn : Math.sign(drawn || 1) * typed;
    };
    const [dx, dy] = [reach(0), reach(1)];
    return {
      at: [corner[0] + Math.min(0, dx), corner[1] + Math.min(0, dy), corner[2]],
      size: [Math.abs(dx), Math.abs(dy), 0],
      other: [corner[0] + dx, corner[1] + dy, corner[2]],
    };
  }

  function heightOf(statement: Statement, foot: Vec3): number | undefined {
    const blank = statement.verb === 'box' ? 'size' : 'height';
    const typed = typedSize(statement, blank, statement.verb === 'box' ? 2 : null);
    if (typed !== undefined) return typed;
    const { x, y, ctrl } = last;
    const snap = ctrl ? null : viewport.snapAt(x, y);
    if (snap && snap.kind !== 'on face' && snap.kind !== 'grid') {
      showCaught({ point: snap.point, snap });
      return snap.point[2] - foot[2];
    }
    overlay.showSnap(null);
    const s = nearestOnLine(foot, [0, 0, 1], rayThrough(viewport.camera, x, y));
    return s === undefined ? undefined : ctrl ? s : toStep(s, state().document.scene.grid);
  }

  function showBase(statement: Statement, { at, size }: { at: Vec3; size: Vec3 }): void {
    picture.ghost({ shape: statement.verb === 'box' ? 'box' : 'cylinder', at, size });
    if (statement.verb === 'box') tell(statement, 'size', size);
    else if (!statement.held.has('radius')) tell(statement, 'diameter', [size[0]]);
    if (statement.verb === 'cylinder' && size[2] !== 0) tell(statement, 'height', [size[2]]);
    tell(statement, 'at', at);
    viewport.invalidate();
  }

  function startBase(x: number, y: number, ctrl: boolean): void {
    const caught = catchPoint(x, y, ctrl);
    if (caught) situation = { at: 'base', corner: caught.point, held: true, x, y };
  }

  function drawBase({ corner }: Extract<Situation, { at: 'base' }>): void {
    const statement = openStatement();
    const caught = catchPoint(last.x, last.y, last.ctrl);
    showCaught(caught);
    if (!statement || !caught) return;
    showBase(statement, baseOf(statement, corner, inPlane(corner, caught)));
  }

  /** The point of the base's own plane that the pointer means: a snap's foot, else where the pointer pierces it. */
  function inPlane(corner: Vec3, caught: Caught): Vec3 {
    if (caught.snap || corner[2] === 0) return [caught.point[0], caught.point[1], corner[2]];
    const ray = rayThrough(viewport.camera, last.x, last.y);
    const far = rayToPlane(ray, { point: corner, normal: [0, 0, 1] });
    if (far === undefined) return caught.point;
    const free = pointOnRay(ray, far);
    const step = state().document.scene.grid;
    return last.ctrl ? free : [toStep(free[0], step), toStep(free[1], step), corner[2]];
  }

  function endBase({ corner }: Extract<Situation, { at: 'base' }>): void {
    const statement = openStatement();
    const caught = catchPoint(last.x, last.y, last.ctrl);
    if (!statement || !caught) return;
    const base = baseOf(statement, corner, inPlane(corner, caught));
    if (!(base.size[0] > 0 && base.size[1] > 0)) return;
    session.update((s) => {
      const placed = withPointer(s, 'at', base.at);
      const sized =
        s.verb === 'box'
          ? withPointer(placed, 'size', [base.size[0], base.size[1], 0])
          : s.held.has('radius')
            ? placed
            : withPointer(placed, 'diameter', [base.size[0]]);
      return {
        ...sized,
        focus: s.verb === 'box' ? { blank: 'size', axis: 2 } : { blank: 'height', axis: null },
      };
    });
    situation = { at: 'height', corner: base.at, other: base.other };
  }

  function drawHeight({ corner, other }: Extract<Situation, { at: 'height' }>): void {
    const statement = openStatement();
    const height = statement && heightOf(statement, other);
    if (statement && typeof height === 'number') showBase(statement, standing(statement, corner, height));
  }

  /** A base pulled down stands on its new bottom. */
  function standing(statement: Statement, corner: Vec3, height: number): { at: Vec3; size: Vec3 } {
    const [x, y] =
      statement.verb === 'box'
        ? [
            session.readLength(String((statement.typed.size as unknown[])[0])),
            session.readLength(String((statement.typed.size as unknown[])[1])),
          ]
        : diameterTwice(statement);
    return {
      at: [corner[0], corner[1], corner[2] + Math.min(0, height)],
      size: [x ?? 0, y ?? 0, Math.abs(height)],
    };
  }

  function diameterTwice(statement: Statement): [number | undefined, number | undefined] {
    const radius = statement.typed.radius;
    const across =
      radius === undefined || radius === ''
        ? session.readLength(String(statement.typed.diameter))
        : 2 * (session.readLength(String(radius)) ?? 0);
    return [across, across];
  }

  function endHeight({ corner, other }: Extract<Situation, { at: 'height' }>): void {
    const statement = openStatement();
    const height = statement && heightOf(statement, other);
    if (!statement || typeof height !== 'number' || height === 0) return;
    const { at, size } = standing(statement, corner, height);
    session.update((s) => {
      const placed = withPointer(s, 'at', at);
      return s.verb === 'box' ? withPointer(placed, 'size', size) : withPointer(placed, 'height', [size[2]]);
    });
    overlay.showSnap(null);
    situation = { at: 'idle' };
    void session.commit();
  }

  // --- Selecting ----------------------------------------------------------------------------------------------------

  function click(x: number, y: number, toggle: boolean): void {
    const part = viewport.partAt(x, y);
    const { selection, statement } = state();
    const blank = statement?.phase === 'open' ? asksForParts(statement) : null;
    if (statement && blank !== null) {
      if (part) session.choose(blank, part);
      return;
    }
    if (statement?.phase === 'done' || (statement && part)) session.leave();
    if (!part) session.select(toggle ? selection : []);
    else if (toggle)
      session.select(selection.includes(part) ? selection.filter((id) => id !== part) : [...selection, part]);
    else session.select([part]);
  }

  const corners = (start: { x: number; y: number }) => ({
    left: Math.min(start.x, last.x),
    right: Math.max(start.x, last.x),
    top: Math.min(start.y, last.y),
    bottom: Math.max(start.y, last.y),
  });

  function endRectangle(start: Extract<Situation, { at: 'rectangle' }>): void {
    const { selection, regionRule } = state();
    const found = partsInRectangle(viewport.instances, viewport.camera, corners(start), regionRule);
    overlay.showRectangle(null);
    const statement = openStatement();
    const blank = asksForParts(statement);
    if (statement && blank !== null) found.forEach((part) => session.choose(blank, part, 'add'));
    else {
      session.leave();
      session.select(last.shift || last.ctrl ? [...new Set([...selection, ...found])] : found);
    }
  }

  // --- Events -------------------------------------------------------------------------------------------------------

  function down(event: PointerEvent): void {
    (document.activeElement as HTMLElement | null)?.blur?.();
    last = place(event);
    const { x, y, ctrl, shift } = last;
    host.setPointerCapture(event.pointerId);
    if (event.button === 1 || event.button === 2) {
      event.preventDefault();
      if (!shift) viewport.orbitAbout(x, y);
      situation = { at: 'navigating', how: shift ? 'pan' : 'orbit', x, y, then: situation };
      return;
    }
    if (event.button !== 0 || state().statement?.phase === 'working' || state().lookingAt !== null) return;
    if (situation.at === 'base' || situation.at === 'height') return;
    const statement = openStatement();
    if (isMaking(statement)) return startBase(x, y, ctrl);
    const blank = statement && pickedBlank(statement);
    const grip = blank ? null : overlay.gripAt(x, y);
    if (grip) return startGrip(grip, x, y);
    situation = { at: 'pressed', x, y };
  }

  function move(event: PointerEvent): void {
    last = place(event);
    const now = situation;
    switch (now.at) {
      case 'navigating':
        if (now.how === 'orbit') viewport.orbit(last.x - now.x, last.y - now.y);
        else viewport.pan(last.x - now.x, last.y - now.y);
        situation = { ...now, x: last.x, y: last.y };
        return;
      case 'pressed':
        if (Math.hypot(last.x - now.x, last.y - now.y) < CLICK_PX) return;
        if (openStatement() && !asksForParts(openStatement())) return;
        situation = { at: 'rectangle', x: now.x, y: now.y };
        return;
      case 'rectangle':
        overlay.showRectangle(corners(now), state().regionRule === 'touching');
        return;
      default:
        // The picture changes at most once a frame, and so does what is caught.
        hoverFrame ||= requestAnimationFrame(() => {
          hoverFrame = 0;
          follow();
        });
    }
  }

  /** What follows the pointer without a press. */
  function follow(): void {
    const now = situation;
    if (now.at === 'gripping') return dragGrip(now);
    if (now.at === 'base') return drawBase(now);
    if (now.at === 'height') return drawHeight(now);
    if (now.at !== 'idle') return;
    const statement = openStatement();
    const blank = statement && pickedBlank(statement);
    if (statement && (blank || isMaking(statement))) {
      const caught = catchPoint(last.x, last.y, last.ctrl, blank === 'to' ? movedParts() : undefined);
      showCaught(caught);
      if (blank === 'to') previewPick(statement, caught);
      viewport.hover(null);
      return;
    }
    overlay.showSnap(null);
    const grip = overlay.gripAt(last.x, last.y);
    host.style.cursor = grip ? 'grab' : '';
    viewport.hover(grip ? null : viewport.partAt(last.x, last.y));
  }

  function up(event: PointerEvent): void {
    last = place(event);
    const now = situation;
    if (now.at === 'navigating') {
      situation = now.then;
      follow();
      return;
    }
    if (event.button !== 0) return;
    if (now.at === 'gripping') return endGrip(now);
    if (now.at === 'rectangle') {
      situation = { at: 'idle' };
      return endRectangle(now);
    }
    if (now.at === 'base') {
      const clicked = now.held && Math.hypot(last.x - now.x, last.y - now.y) < CLICK_PX;
      // A click sets the first corner, and a second one the other; a drag does both.
      if (clicked) situation = { ...now, held: false };
      else endBase(now);
      return;
    }
    if (now.at === 'height') return endHeight(now);
    if (now.at !== 'pressed') return;
    situation = { at: 'idle' };
    const statement = openStatement();
    const blank = statement && pickedBlank(statement);
    if (statement && blank) {
      const caught = catchPoint(last.x, last.y, last.ctrl, blank === 'to' ? movedParts() : undefined);
      if (caught) pick(statement, blank, caught);
      return;
    }
    click(last.x, last.y, last.shift || last.ctrl);
  }

  function wheel(event: WheelEvent): void {
    event.preventDefault();
    last = place(event);
    const lines = event.deltaMode === 1 ? 16 : 1;
    viewport.zoom(last.x, last.y, ZOOM_PER_WHEEL ** (event.deltaY * lines));
  }

  const leave = () => {
    viewport.hover(null);
    if (situation.at === 'idle') overlay.showSnap(null);
  };
  const noMenu = (event: Event) => event.preventDefault();

  /** Leaving the statement leaves no trace of what was being drawn. */
  const unsubscribe = session.store.subscribe((now, before) => {
    if (now.statement === before.statement) return;
    const ended =
      now.statement === null ||
      now.statement.phase === 'done' ||
      now.statement.verb !== before.statement?.verb;
    if (!ended) {
      if (situation.at === 'gripping' || situation.at === 'base' || situation.at === 'height') follow();
      return;
    }
    if (picture.ghost(null)) viewport.invalidate();
    overlay.showSnap(null);
    overlay.showRubber(null, null);
    if (
      situation.at === 'base' ||
      situation.at === 'height' ||
      (situation.at === 'gripping' && now.statement === null)
    )
      situation = { at: 'idle' };
    if (now.statement === null) {
      const parts = before.statement?.typed.parts;
      if (before.statement?.phase === 'open' && Array.isArray(parts)) endPreview(parts as ItemId[]);
    }
  });

  host.addEventListener('pointerdown', down);
  host.addEventListener('pointermove', move);
  host.addEventListener('pointerup', up);
  host.addEventListener('pointerleave', leave);
  host.addEventListener('wheel', wheel, { passive: false });
  host.addEventListener('contextmenu', noMenu);
  return () => {
    unsubscribe();
    cancelAnimationFrame(hoverFrame);
    host.removeEventListener('pointerdown', down);
    host.removeEventListener('pointermove', move);
    host.removeEventListener('pointerup', up);
    host.removeEventListener('pointerleave', leave);
    host.removeEventListener('wheel', wheel);
    host.removeEventListener('contextmenu', noMenu);
  };
}
