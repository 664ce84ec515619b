/** Where the views of a sheet look from. */
import { worldFromPart } from '../document/items.ts';
import type { KadrelDocument } from '../document/schema.ts';
import type { Look, Sheet, SheetView, StandardLook } from '../document/sheet.ts';
import { isSection } from '../sections/cuts.ts';
import { ISOMETRIC_ALTITUDE, cameraOf } from '../space/camera.ts';
import { cleanDirection, column, fromColumns } from '../space/matrix.ts';
import { NO_TURN, carry, chain, inverse, poseOf, type Pose } from '../space/pose.ts';
import { add, cross, dot, scale, subtract, unit, type Vec3 } from '../space/vector.ts';
import type { Vec2 } from '../space/vector2.ts';

/** Bearing and altitude, as views have them. Source of the isometric one: ISO 5456-3. */
const STANDARD: Readonly<Record<StandardLook, readonly [bearing: number, altitude: number]>> = {
  plan: [0, 90],
  front: [0, 0],
  right: [90, 0],
  left: [-90, 0],
  rear: [180, 0],
  below: [0, -90],
  isometric: [45, ISOMETRIC_ALTITUDE],
};

/** Sides of views in words. */
export const LOOK_WORDS: Readonly<Record<StandardLook, string>> = {
  plan: 'Plan',
  front: 'Front',
  right: 'Right',
  left: 'Left',
  rear: 'Rear',
  below: 'From below',
  isometric: 'Isometric',
};

/** Carries a view's frame to the world: X to the right of the picture, Y up, Z towards who looks. */
export function frameOfLook(document: KadrelDocument, look: Look): Pose | undefined {
  if (look.kind === 'standard') return lookingFrom(...STANDARD[look.from]);
  if (look.kind === 'kept') {
    const kept = Object.hasOwn(document.views, look.name) ? document.views[look.name] : undefined;
    return kept && lookingFrom(kept.bearing, kept.altitude);
  }
  if (look.kind === 'slice') {
    const { origin, turn } = look.frame;
    return chain(poseOf(origin, turn), { turn: NO_TURN, shift: [0, 0, look.height] });
  }
  const plane = document.items[look.plane];
  if (!plane || !isSection(plane)) return undefined;
  const { turn, shift } = worldFromPart(document, plane.id);
  const out = column(turn, 2);
  const towards = plane.recipe.base.shows === 'behind' ? out : scale(out, -1);
  return { ...upright(towards), shift };
}

function lookingFrom(bearing: number, altitude: number): Pose {
  const state = { target: [0, 0, 0], bearing, altitude, height: 1, projection: 'parallel' } as const;
  const { right, up, toward } = cameraOf(state, 1, 1);
  return { turn: fromColumns(right, up, toward), shift: [0, 0, 0] };
}

/** Directions nearer to the vertical than this have no level line to the right. */
const UPRIGHT = 1e-9;

function upright(towards: Vec3): Omit<Pose, 'shift'> {
  const level = cross([0, 0, 1], towards);
  const right: Vec3 = Math.hypot(...level) < UPRIGHT ? [1, 0, 0] : cleanDirection(unit(level));
  return { turn: fromColumns(right, cleanDirection(unit(cross(towards, right))), towards) };
}

/** The frame of a view, with its origin where the anchor is, or in the plane of a section; undefined where what it shows is gone. */
export function frameOfView(document: KadrelDocument, { look, anchor }: SheetView): Pose | undefined {
  const frame = frameOfLook(document, look);
  if (!frame) return undefined;
  if (look.kind !== 'section' && look.kind !== 'slice') return { ...frame, shift: anchor };
  const towards = column(frame.turn, 2);
  const off = dot(subtract(frame.shift, anchor), towards);
  return { ...frame, shift: add(anchor, scale(towards, off)) };
}

/** Carries points of the world to the paper. */
export const onPaper = (frame: Pose, { at, scale: by }: Pick<SheetView, 'at' | 'scale'>) => {
  const back = inverse(frame);
  return (point: Vec3): Vec2 => {
    const [x, y] = carry(back, point);
    return [at[0] + by * x, at[1] + by * y];
  };
};

/** Whether lengths along the picture are those of the model: it looks along an axis, or squarely at a plane. */
export const isPictorial = (document: KadrelDocument, { look }: Pick<SheetView, 'look'>): boolean => {
  if (look.kind === 'section' || look.kind === 'slice') return false;
  const frame = frameOfLook(document, look);
  return !frame || !column(frame.turn, 2).some((n) => Math.abs(Math.abs(n) - 1) < UPRIGHT);
};

/** The view of that name on a sheet. */
export const viewNamed = ({ views }: Sheet, name: string): string | undefined =>
  Object.keys(views).find((id) => views[id]!.name === name) ??
  (Object.hasOwn(views, name) ? name : undefined);
