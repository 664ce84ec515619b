/** Crosses in circles, and centre lines of round things. */
import type { SheetView } from '../document/sheet.ts';
import type { DrawnView } from '../questions/question.ts';
import { add2, scale2, subtract2, unit2, type Vec2 } from '../space/vector2.ts';
import { stroke, type Mark } from './marks.ts';

/** Beyond the rim, mm. Common practice, no source. */
const BEYOND_RIM = 3;

/** A cross in each circle that is seen squarely, as large as the largest about that centre; and axes that are seen from the side. */
export function centreMarks({ centres, at, scale }: SheetView, { catches, axes }: DrawnView): Mark[] {
  if (centres === 'none') return [];
  const axisLines = axes.map(([from, to]): Mark => {
    const way = scale2(unit2(subtract2(to, from)), BEYOND_RIM / scale);
    const ends = [subtract2(from, way), add2(to, way)].map(([x, y]): Vec2 => [
      at[0] + scale * x,
      at[1] + scale * y,
    ]);
    return stroke('centre', ...ends);
  });
  const largest = new Map<string, { readonly centre: Vec2; readonly reach: number }>();
  for (const { at: place, radius, isWhole } of catches) {
    if (radius === undefined || !isWhole) continue;
    const centre: Vec2 = [at[0] + scale * place[0], at[1] + scale * place[1]];
    const key = centre.map((n) => n.toFixed(3)).join();
    const reach = scale * radius + BEYOND_RIM;
    if (reach > (largest.get(key)?.reach ?? 0)) largest.set(key, { centre, reach });
  }
  const crosses = [...largest.values()].flatMap(({ centre: [x, y], reach }) => [
    stroke('centre', [x - reach, y], [x + reach, y]),
    stroke('centre', [x, y - reach], [x, y + reach]),
  ]);
  return [...axisLines, ...crosses];
}
