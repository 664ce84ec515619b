/** What the grips are for, and where they stand. */
import {
  below,
  boxPoint,
  isGroup,
  carry,
  along,
  carryBox,
  frameAlong,
  datumInPart,
  isRefusal,
  multiply,
  transposed,
  resolveOne,
  unionBoxes,
  vectorOf,
  verbNamed,
  worldFromPart,
  carryBack,
  NO_TURN,
  type Box,
  type Frame,
  type ItemId,
  type SnapInstance,
  type Turn,
  type Vec3,
} from '@kadrel/core';
import { isFramed } from '../session/frames.ts';
import { isHandled, type Statement } from '../session/statement.ts';
import { measuresOf } from '../session/built.ts';
import { type Session, type SessionState } from '../session/store.ts';
import { faceArrow } from './faceArrow.ts';
import type { GripSet } from './grips.ts';

/** The exact box of an item in the world; undefined while it is not built. */
export function boxOf(state: SessionState, id: ItemId): Box | undefined {
  const measures = measuresOf(state, id);
  if (measures) return carryBox(worldFromPart(state.document, id), measures.box);
  const part = state.document.items[id];
  // A group that is not selected is no more than what stands in it.
  return part && isGroup(part)
    ? unionBoxes(below(state.document, part).flatMap((one) => boxOf(state, one.id) ?? []))
    : undefined;
}

/** The box round all that is selected. */
export function selectionBox(state: SessionState): Box | undefined {
  return unionBoxes(state.selection.flatMap((id) => boxOf(state, id) ?? []));
}

/** The axes of the frame that the grips and the tripods show: that of the verb in hand, or else of Move. */
export function frameAxes(session: Session): Turn {
  const { statement, selection, document, frames } = session.store.getState();
  const verb = statement && isFramed(statement.verb) ? statement.verb : 'move';
  const typed =
    statement?.verb === verb ? statement.typed : { in: frames[verb] === 'view' ? 'world' : frames[verb] };
  const frame = resolveOne(verbNamed(verb)!, 'in', typed, { document, world: session.world() }) as
    Frame | undefined;
  if (!frame || isRefusal(frame)) return NO_TURN;
  if (!frame.own) return frame.turn;
  const [first] = selection;
  return first === undefined ? NO_TURN : worldFromPart(document, first).turn;
}

/** What the grips are for, and where they stand; null while there is nothing to hold. */
export function gripSetOf(session: Session, instances: readonly SnapInstance[]): GripSet | null {
  const state = session.store.getState();
  const { statement, selection, lookingAt, document, isSelectOnly } = state;
  const isOpen = statement?.phase === 'open';
  const arrow = lookingAt === null && !isSelectOnly ? faceArrow(state, instances) : undefined;
  if (arrow && statement?.phase !== 'working') {
    const pulled = pulledMm(session, isOpen ? statement : null);
    const anchor = along(arrow.anchor, arrow.normal, pulled);
    return { how: 'offset-face', axes: frameAlong(arrow.normal), anchor, pulledMm: pulled };
  }
  const how = isOpen && isFramed(statement.verb) ? statement.verb : 'move';
  const isFree = !isOpen || isFramed(statement.verb);
  const isMovable = selection.length > 0 && selection.every((id) => document.items[id]?.locked === false);
  const anchor = isFree && isMovable && lookingAt === null && !isSelectOnly ? anchorOf(state) : null;
  if (!anchor) return null;
  const axes = frameAxes(session);
  if (how === 'resize') {
    const box = boxAlong(state, axes);
    return box && { how, anchor, axes, box };
  }
  return { how, anchor: how === 'turn' ? (turnCentre(session, statement) ?? anchor) : anchor, axes };
}

/** How far the statement in hand moves faces by a distance alone. */
function pulledMm(session: Session, statement: Statement | null): number {
  const { by, to } = statement?.typed ?? {};
  return to === undefined ? (session.readLength(String(by ?? 0)) ?? 0) : 0;
}

function turnCentre(session: Session, statement: Statement | null): Vec3 | null {
  if (!statement || !isHandled(statement, 'turns')) return null;
  const state = session.store.getState();
  const { document } = state;
  if (statement.typed.centre === 'point') {
    const at = resolveOne(verbNamed('turn')!, 'at', statement.typed, { document, world: session.world() });
    return Array.isArray(at) ? vectorOf(at as never) : null;
  }
  const box = statement.typed.centre === 'shared' ? selectionBox(state) : undefined;
  return box ? boxPoint(box, [0, 0, 0]) : null;
}

/** The box round the selection along axes, given in them: exact for one part along its own, or quarter turns. */
function boxAlong(state: SessionState, axes: Turn): Box | null {
  const boxes = state.selection.flatMap((id) => {
    const measures = measuresOf(state, id);
    if (!measures) return [];
    const { turn, shift } = worldFromPart(state.document, id);
    const inAxes = carryBack({ turn: axes, shift: [0, 0, 0] }, shift);
    const relative = multiply(transposed(axes), turn);
    return [carryBox({ turn: relative, shift: inAxes }, measures.box)];
  });
  return unionBoxes(boxes) ?? null;
}

/** Where the grips stand: the datum of one part, the middle of the underside of several. */
export function anchorOf(state: SessionState): Vec3 | null {
  const { selection, document } = state;
  const [only, ...others] = selection;
  const part = only === undefined ? undefined : document.items[only];
  // A section plane is held in the middle of what it cuts.
  if (part && others.length === 0 && part.recipe.base.kind !== 'section') {
    const inPart = datumInPart(part, (id) => measuresOf(state, id)?.box);
    if (inPart) return carry(worldFromPart(document, part.id), inPart);
  }
  const box = selectionBox(state);
  const isSection = part?.recipe.base.kind === 'section' && others.length === 0;
  return box ? boxPoint(box, [0, 0, isSection ? 0 : -1]) : null;
}
