/** Round edges. */
import type { Content } from '../../content/content.ts';
import { edgesAmong, sharpEdges, type MeetingEdge } from './chosen.ts';
import type { NamedShape } from '../../naming/named.ts';
import { release, scope, type Keep, type Occt, type TopoDS_Face } from '../../occt/occt.ts';
import { onCopy } from '../onCopy.ts';
import { buildOrTellLargest } from './largest.ts';
import { rimsAmong, withoutRoom } from './rims.ts';
import { cannotGo, rounded } from './rounding.ts';

type Fillet = Extract<Content, { readonly kind: 'fillet' }>;

/** New faces are called fillet1, fillet2 … by their edges. Throws BuildError, with the largest radius that fits. */
export function buildFillet(occt: Occt, of: NamedShape, fillet: Fillet): NamedShape {
  return buildOrTellLargest(
    fillet.radius,
    (size) => onCopy(occt, of, (own) => filleted(occt, own, { ...fillet, size })),
    {
      what: fillet.radii ? 'radii' : 'radius',
      giveBack: ({ shape }) => release(occt, shape),
    },
  );
}

/** What is tried: all radii in the same measure as the one that is said. */
type Sized = Fillet & { readonly size: number };

function filleted(occt: Occt, of: NamedShape, fillet: Sized): NamedShape {
  const { radius, to, size } = fillet;
  return scope((keep) => {
    const edges = edgesByRadius(occt, of, { fillet, keep });
    const rims = rimsAmong(occt, edges.keys()).filter(({ edge, flat }) =>
      isDrum(occt, edge.faces[1 - flat]!),
    );
    const growth = to > 0 ? to / radius : 1;
    const none = withoutRoom(rims, ({ edge }) => ((edges.get(edge)! * size) / radius) * legOf(edge));
    if (none.length > 0) throw cannotGo('Fillet', none);
    const operation = keep(new occt.BRepFilletAPI_MakeFillet(of.shape, 'ChFi3d_Rational'));
    for (const [{ edge }, own] of edges) {
      const here = (own * size) / radius;
      if (growth === 1) operation.Add(here, edge);
      else operation.Add(here, here * growth, edge);
    }
    return rounded(operation, { occt, of, edges: [...edges.keys()], what: 'Fillet', keep });
  });
}

/** The radius of each edge (mm): where several choices mean one edge, the last that has a radius of its own. */
function edgesByRadius(
  occt: Occt,
  of: NamedShape,
  { fillet: { edges: chosen, radius, radii = [] }, keep }: { readonly fillet: Fillet; readonly keep: Keep },
): Map<MeetingEdge, number> {
  const sharp = sharpEdges({ occt, keep }, of);
  const found = new Map<MeetingEdge, number>();
  chosen.forEach((one, i) => {
    const own = radii[i];
    for (const edge of edgesAmong(occt, sharp, [one])) found.set(edge, own ?? found.get(edge) ?? radius);
  });
  return found;
}

/** How far from an edge a ball of radius 1 in its angle touches: tan(φ / 2), φ between the normals of its faces. */
const legOf = ({ cosine }: MeetingEdge): number => Math.sqrt((1 - cosine) / (1 + cosine));

/** Straight out of the circle, so that a ball rolls as in the plane through the axis. */
const isDrum = (occt: Occt, face: TopoDS_Face): boolean =>
  scope((keep) => DRUMS.has(keep(new occt.BRepAdaptor_Surface(face, true)).GetType() as unknown as string));
const DRUMS: ReadonlySet<string> = new Set(['GeomAbs_Cylinder', 'GeomAbs_Cone']);
