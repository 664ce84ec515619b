import { usualValues } from '../../racks/made.ts';
import { remake } from '../../racks/put.ts';
import { declareVerb, needed, optional, refuse } from '../../statement/declare.ts';
import { lockedRefusal } from '../shared/placing.ts';

/** Makes what was taken from a rack at another size, or by other parameters. */
export const changeTaken = declareVerb({
  id: 'change-taken',
  name: 'Change rack part',
  group: 'edit',
  about: 'Another size or other parameters of what was taken from a rack; it stays where it is, and joined.',
  words: ['size', 'parameters', 'bolt', 'standard', 'rack', 'follow'],
  blanks: {
    part: needed('part', 'part', 'What was taken from a rack.'),
    size: optional('size', 'size', 'One of its standard sizes.', { of: 'part' }),
    values: optional('parameters', 'with', 'Its parameters; those that are not said stay.', { of: 'part' }),
    follow: optional('choice', 'follows', 'Whether newer versions on the rack are offered.', {
      choices: { own: 'its own', follows: 'follows the rack' },
    }),
  },
  sentence: 'Change rack part {part}[, size {size}][, with {values}][, {follow}]',
  apply(draft, { part: id, size, values, follow }, context) {
    const item = draft.items[id]!;
    const part = item.taken && draft.rackParts[item.taken.from];
    if (!part) return refuse('not-taken.was-rack', { name: item.name }, 'part');
    const locked = lockedRefusal(draft, [id]);
    if (locked) return { ...locked, blank: 'part' };
    const sized = size === undefined ? {} : usualValues(part, size);
    if (!sized)
      return refuse(
        'size',
        { name: part.name, size: size!, sizes: part.sizes.map(({ name }) => name).join(', ') },
        'size',
      );
    const { taken } = item;
    // What was set by hand is no standard size any more.
    const keptSize = values && Object.keys(values).length > 0 ? undefined : taken!.size;
    const taking = {
      values: { ...taken!.values, ...sized, ...values },
      size: size ?? keptSize,
      follows: follow === undefined ? taken!.follows === true : follow === 'follows',
    };
    const fault = remake({ draft, newId: () => context.newId() }, id, { part, taking });
    return fault ? { ...fault, blank: values ? 'values' : 'size' } : { select: [id] };
  },
});
