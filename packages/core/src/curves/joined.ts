/** Curves put end to end. */
import { distance2, type Vec2 } from '../space/vector2.ts';
import { endOf, reversed, startOf, type Curve, type DrawnPath } from './curve.ts';

/** Ends nearer than this (mm) are joined: what files round their numbers to. */
const JOIN_MM = 1e-6;

/** Loose curves as paths, each as long as can be; ends are looked up in a grid, so that thousands take no time. */
export function joined(curves: readonly Curve[]): DrawnPath[] {
  const whole = curves.filter((curve) => distance2(startOf(curve), endOf(curve)) <= JOIN_MM);
  const open = curves.filter((curve) => !whole.includes(curve));
  const cells = new Map<string, Set<number>>();
  const cell = ([x, y]: Vec2, dx = 0, dy = 0) =>
    `${Math.round(x / JOIN_MM / 4) + dx} ${Math.round(y / JOIN_MM / 4) + dy}`;
  open.forEach((curve, i) => {
    for (const end of [startOf(curve), endOf(curve)]) {
      const key = cell(end);
      cells.set(key, (cells.get(key) ?? new Set()).add(i));
    }
  });
  const used = new Set<number>();
  const nextAt = (end: Vec2): Curve | undefined => {
    for (let dx = -1; dx <= 1; dx++)
      for (let dy = -1; dy <= 1; dy++)
        for (const i of cells.get(cell(end, dx, dy)) ?? []) {
          if (used.has(i)) continue;
          const curve = open[i]!;
          const isStart = distance2(startOf(curve), end) <= JOIN_MM;
          if (!isStart && distance2(endOf(curve), end) > JOIN_MM) continue;
          used.add(i);
          return isStart ? curve : reversed(curve);
        }
    return undefined;
  };
  const chains = open.flatMap((first, i): DrawnPath[] => {
    if (used.has(i)) return [];
    used.add(i);
    const chain = [first];
    for (let next = nextAt(endOf(first)); next; next = nextAt(endOf(chain.at(-1)!))) chain.push(next);
    for (let before = nextAt(startOf(first)); before; before = nextAt(startOf(chain[0]!)))
      chain.unshift(reversed(before));
    const closed = chain.length > 1 && distance2(startOf(chain[0]!), endOf(chain.at(-1)!)) <= JOIN_MM;
    return [{ closed, curves: chain }];
  });
  return [...whole.map((curve) => ({ closed: true, curves: [curve] })), ...chains];
}
