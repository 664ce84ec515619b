/** Edges cut off flat. */
import { radians } from '@kadrel/core';
import type { Content } from '../../content/content.ts';
import { edgesChosen } from './chosen.ts';
import type { NamedShape } from '../../naming/named.ts';
import { release, scope, type Occt } from '../../occt/occt.ts';
import { onCopy } from '../onCopy.ts';
import { buildOrTellLargest } from './largest.ts';
import { rimsAmong, withoutRoom, type Rim } from './rims.ts';
import { cannotGo, rounded } from './rounding.ts';

type Chamfer = Extract<Content, { readonly kind: 'chamfer' }>;

/** New faces are called chamfer1, chamfer2 … by their edges. Throws BuildError, with the largest width that fits. */
export function buildChamfer(occt: Occt, of: NamedShape, content: Chamfer): NamedShape {
  const { width, second } = content;
  return buildOrTellLargest(
    width,
    (size) =>
      onCopy(occt, of, (own) =>
        chamfered(occt, own, { ...content, width: size, second: (size * second) / width }),
      ),
    { what: 'width', giveBack: ({ shape }) => release(occt, shape) },
  );
}

function chamfered(occt: Occt, of: NamedShape, content: Chamfer): NamedShape {
  return scope((keep) => {
    const { edges: chosen, width, second, angle } = content;
    const edges = edgesChosen(occt, of, { chosen, keep });
    requireRoom(rimsAmong(occt, edges), content);
    const operation = keep(new occt.BRepFilletAPI_MakeChamfer(of.shape));
    for (const { edge, faces } of edges)
      if (angle > 0) operation.AddDA(width, radians(angle), edge, faces[0]);
      else if (second > 0) operation.Add(width, second, edge, faces[0]);
      else operation.Add(width, edge);
    return rounded(operation, { occt, of, edges, what: 'Chamfer', keep });
  });
}

/** Throws BuildError. */
function requireRoom(
  rims: readonly Rim[],
  { width, second, angle }: Pick<Chamfer, 'width' | 'second' | 'angle'>,
): void {
  // With an angle the other leg follows from the form of the other face.
  const onSecond = second > 0 ? second : angle > 0 ? 0 : width;
  const none = withoutRoom(rims, ({ flat }) => (flat === 0 ? width : onSecond));
  if (none.length > 0) throw cannotGo('Chamfer', none);
}
