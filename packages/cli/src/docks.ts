/** What is joined, what has drifted apart, and what is still open: `kadrel docks FILE`. */
import {
  docksReport,
  type DockEnd,
  type DockPlace,
  type DockReport,
  type KadrelDocument,
} from '@kadrel/core';
import { worldOf, type Evaluator } from '@kadrel/kernel';

export function docksOf(document: KadrelDocument, kernel: Evaluator): DockReport {
  const world = worldOf(document, kernel, () => '');
  return docksReport(document, (part, variant) => world.shapeOf(part, variant));
}

/** One object with all joints and all open docks. Lengths in mm, angles in degrees. */
export function docksJson(document: KadrelDocument, { joints, open, lost }: DockReport) {
  const placed = (place: DockPlace) => ({
    ...endJson(document, place.end),
    kind: place.dock.kind,
    at: place.pose.shift,
    looking: [place.pose.turn[2], place.pose.turn[5], place.pose.turn[8]],
  });
  return {
    joints: joints.map(({ joint, gap, angle, isClosed, misfit, unknown }) => ({
      name: joint.name,
      moved: endJson(document, joint.moved),
      onto: endJson(document, joint.onto),
      held: joint.held === true,
      closed: isClosed,
      ...(unknown === undefined ? { gap, angle } : { unknown }),
      ...(misfit === undefined ? {} : { misfit }),
    })),
    open: open.map(placed),
    lost: lost.map((place) => ({ ...placed(place), why: place.lost })),
  };
}

const endJson = ({ items }: KadrelDocument, { of, dock, member }: DockEnd) => ({
  part: items[of]?.name ?? of,
  dock: items[of]?.docks?.[dock]?.name ?? dock,
  ...(member === undefined ? {} : { member }),
});

/** Whether everything is joined as it was said. */
export const isSound = ({ joints, lost }: DockReport): boolean =>
  lost.length === 0 && joints.every(({ isClosed, misfit }) => isClosed && misfit === undefined);
