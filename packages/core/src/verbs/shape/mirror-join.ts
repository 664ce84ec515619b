import { addStep } from '../../document/halves.ts';
import { frameInPart } from '../../statement/planes.ts';
import { declareVerb, isRefusal, needed } from '../../statement/declare.ts';
import { solidToShape } from '../shared/shapingVerb.ts';

/** A half model becomes whole. */
export const mirrorJoin = declareVerb({
  id: 'mirror-join',
  name: 'Mirror and join',
  group: 'shape',
  about:
    'Joins a solid with its mirror image in a plane: half a model becomes a whole one, which still has one recipe.',
  words: ['symmetry', 'symmetric', 'half', 'double', 'reflect', 'whole'],
  blanks: {
    part: needed('part', 'part', 'The solid.'),
    plane: needed('plane', 'plane', 'The mirror: a work plane, a flat face or three points.', {
      default: 'side',
    }),
  },
  sentence: 'Mirror and join {part} in {plane}',
  apply(draft, { part, plane }) {
    const solid = solidToShape(draft, part);
    if (isRefusal(solid)) return solid;
    addStep(solid, { kind: 'double', frame: frameInPart(draft, part, plane).kept });
    return { select: [part] };
  },
});
