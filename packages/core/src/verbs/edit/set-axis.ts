import { definitionOf, worldFromPart } from '../../document/items.ts';
import { aboutBlank, readAxis, throughBlank } from '../shared/axes.ts';
import { declareVerb, isRefusal, needed, optional, refuse } from '../../statement/declare.ts';
import { readOne } from '../../statement/reading.ts';

/** Moves the line that a turned part is turned about; its form follows. */
export const setAxis = declareVerb({
  id: 'axis',
  name: 'Set axis',
  group: 'edit',
  about: 'Moves the line that a turned part is turned about; its bore and volume follow.',
  words: ['revolve', 'axis', 'bore', 'lathe'],
  blanks: {
    part: needed('part', 'part', 'A turned part.'),
    x: optional('quantity', 'X', 'Of a point of the line, in the plane of the profile.', { kind: 'length' }),
    y: optional('quantity', 'Y', 'Of a point of the line, in the plane of the profile.', { kind: 'length' }),
    angle: optional('quantity', 'angle', 'From the X of the profile towards its Y.', { kind: 'angle' }),
    about: aboutBlank,
    through: throughBlank,
  },
  sentence: 'Set axis of {part}[ to X {x}][, Y {y}][, angle {angle}][ to {about}][ through {through}]',
  apply(draft, { part, x, y, angle, about, through }, context) {
    const item = draft.items[part]!;
    const { base } = definitionOf(draft, item).recipe;
    if (base.kind !== 'revolve') return refuse('not-turned', { name: item.name }, 'part');
    if (item.locked) return refuse('locked', { name: item.name }, 'part');
    if (about || through) {
      const line = readAxis(worldFromPart(draft, base.profiles[0]!), { axis: 'y', about, through });
      if (isRefusal(line)) return line;
      base.axis = line;
    }
    const [px, py] = [
      x === undefined
        ? base.axis.point[0]
        : readOne(x, { kind: 'length', now: base.axis.point[0], context, blank: 'x' }),
      y === undefined
        ? base.axis.point[1]
        : readOne(y, { kind: 'length', now: base.axis.point[1], context, blank: 'y' }),
    ];
    if (isRefusal(px)) return px;
    if (isRefusal(py)) return py;
    const turned =
      angle === undefined
        ? base.axis.angle
        : readOne(angle, { kind: 'angle', now: base.axis.angle, context, blank: 'angle' });
    if (isRefusal(turned)) return turned;
    base.axis = { point: [px, py], angle: turned };
    return { select: [part] };
  },
});
