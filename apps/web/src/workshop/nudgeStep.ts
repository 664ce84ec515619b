/** Nudging by the arrow keys: along which axis of the world, and how far. */
import type { Camera, Vec3 } from '@kadrel/core';

/** From this altitude up, degrees, the arrows move over the ground; in a flatter view up is up. */
const FLAT_ALTITUDE = 20;

/** What an arrow key moves by, along the world's axes nearest to those of the view; undefined for other keys. */
export function nudgeStep(
  event: Pick<KeyboardEvent, 'key' | 'shiftKey' | 'ctrlKey' | 'metaKey'>,
  { right, up, toward, state }: Pick<Camera, 'right' | 'up' | 'toward' | 'state'>,
  nudge: number,
): Vec3 | undefined {
  const across = nearestAxis(right);
  const isFlat = Math.abs(state.altitude) < FLAT_ALTITUDE;
  // Seen from straight above, what is up on the screen lies away.
  const away = nearestAxis(Math.abs(state.altitude) === 90 ? up : [-toward[0], -toward[1], 0]);
  const upward: Vec3 = [0, 0, 1];
  const [vertical, deep] = isFlat ? [upward, away] : [away, upward];
  const directions: Readonly<Record<string, readonly [Vec3, 1 | -1]>> = {
    ArrowRight: [across, 1],
    ArrowLeft: [across, -1],
    ArrowUp: [vertical, 1],
    ArrowDown: [vertical, -1],
    PageUp: [deep, 1],
    PageDown: [deep, -1],
  };
  const found = directions[event.key];
  if (!found) return undefined;
  const [direction, sign] = found;
  const size = nudge * (event.shiftKey ? 10 : 1) * (event.ctrlKey || event.metaKey ? 0.1 : 1) * sign;
  return direction.map((n) => n * size + 0) as unknown as Vec3;
}

function nearestAxis(direction: Vec3): Vec3 {
  const axis = [0, 1].reduce((a, b) => (Math.abs(direction[b]!) > Math.abs(direction[a]!) + 1e-9 ? b : a));
  return [0, 1, 2].map((i) => (i === axis ? Math.sign(direction[axis]!) : 0)) as unknown as Vec3;
}
