/** Round edges. */
import type { Content } from '../../content/content.ts';
import { edgesChosen } from './chosen.ts';
import type { NamedShape } from '../../naming/named.ts';
import { release, scope, type Occt } from '../../occt/occt.ts';
import { buildOrTellLargest } from './largest.ts';
import { rounded } from './rounding.ts';

type Fillet = Extract<Content, { readonly kind: 'fillet' }>;

/** New faces are called fillet1, fillet2 … by their edges. Throws BuildError, with the largest radius that fits. */
export function buildFillet(occt: Occt, of: NamedShape, { edges: chosen, radius, to }: Fillet): NamedShape {
  return scope((keep) => {
    const edges = edgesChosen(occt, of, { chosen, keep });
    const growth = to > 0 ? to / radius : 1;
    return buildOrTellLargest(
      radius,
      (size) => {
        const operation = keep(new occt.BRepFilletAPI_MakeFillet(of.shape, 'ChFi3d_Rational'));
        for (const { edge } of edges)
          if (growth === 1) operation.Add(size, edge);
          else operation.Add(size, size * growth, edge);
        return rounded(operation, { occt, of, edges, what: 'Fillet', keep });
      },
      { what: 'radius', giveBack: ({ shape }) => release(occt, shape) },
    );
  });
}
