import type { RackPart } from '../../document/rack.ts';
import type { Taken } from '../../document/schema.ts';
import { usualValues } from '../../racks/made.ts';
import { remake } from '../../racks/put.ts';
import { declareVerb, needed, refuse } from '../../statement/declare.ts';
import { lockedRefusal } from '../shared/placing.ts';

/** Makes what was taken from a rack by another version of the rack part. */
export const updateTaken = declareVerb({
  id: 'update-taken',
  name: 'Update rack part',
  group: 'edit',
  about: 'Another version of the rack part that something was taken from; its size and parameters stay.',
  words: ['version', 'newer', 'rack', 'follow'],
  blanks: {
    parts: needed('parts', 'parts', 'What was taken from a rack.', { least: 1 }),
    to: needed('rackPart', 'version', 'The rack part as it is now.'),
  },
  sentence: 'Update rack part {parts} to {to}',
  apply(draft, { parts, to }, context) {
    const locked = lockedRefusal(draft, parts);
    if (locked) return locked;
    for (const id of parts) {
      const item = draft.items[id]!;
      const part = item.taken && draft.rackParts[item.taken.from];
      if (part?.id !== to.id) return refuse('not-taken.parts', { name: item.name, to: to.name }, 'parts');
      const taking = takingAnew(item.taken!, to);
      const fault = remake({ draft, newId: () => context.newId() }, id, { part: to, taking });
      if (fault) return { ...fault, blank: 'to' };
    }
    return { select: parts };
  },
});

/** A standard size is taken from the new table; other values stay as far as there are such parameters. */
function takingAnew({ values, size, follows }: Taken, to: RackPart) {
  const names = new Set(to.parameters.map(({ name }) => name));
  const sized = size === undefined ? undefined : usualValues(to, size);
  const kept = Object.fromEntries(Object.entries(values).filter(([name]) => names.has(name)));
  return { values: sized ?? kept, size: sized ? size : undefined, follows: follows === true };
}
