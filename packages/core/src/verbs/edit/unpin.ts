import { pinNamed } from '../../document/items.ts';
import { declareVerb, needed, refuse } from '../../statement/declare.ts';

/** Takes a pin away. */
export const unpin = declareVerb({
  id: 'unpin',
  name: 'Remove pin',
  group: 'edit',
  about: 'Takes a pin away.',
  words: ['pin', 'delete pin'],
  blanks: { pin: needed('text', 'pin', 'The name of the pin.') },
  sentence: 'Remove pin {pin}',
  apply(draft, { pin }) {
    const found = pinNamed(draft, pin);
    if (!found) return refuse('unknown-pin', { name: pin }, 'pin');
    delete draft.pins[found.id];
    return {};
  },
});
