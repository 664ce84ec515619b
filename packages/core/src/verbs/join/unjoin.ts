import { carrierOf } from '../../docks/places.ts';
import { declareVerb, isRefusal, optional, refuse } from '../../statement/declare.ts';
import { jointNamed } from '../shared/docks.ts';

/** Lets go of what is joined; it stays where it is. */
export const unjoin = declareVerb({
  id: 'unjoin',
  name: 'Unjoin',
  group: 'join',
  about: 'Frees the docks of a joint, or of parts; nothing is moved.',
  words: ['disconnect', 'free', 'release', 'take apart', 'detach'],
  blanks: {
    joint: optional('text', 'joint', 'Its name, as in J1.', { excludes: 'parts', neededUnless: 'parts' }),
    parts: optional('parts', 'parts', 'All joints of these parts.', { excludes: 'joint' }),
  },
  sentence: 'Unjoin[ {joint}][ {parts}]',
  apply(draft, { joint: name, parts }) {
    if (name !== undefined) {
      const joint = jointNamed(draft, name);
      if (isRefusal(joint)) return joint;
      delete draft.joints[joint.id];
      return {};
    }
    const chosen = new Set(parts);
    const going = Object.values(draft.joints).filter((joint) =>
      [joint.moved, joint.onto].some((end) => chosen.has(end.of) || chosen.has(carrierOf(draft, end) ?? '')),
    );
    if (going.length === 0) return refuse('no-joints.parts', {}, 'parts');
    for (const { id } of going) delete draft.joints[id];
    return { select: [...chosen] };
  },
});
