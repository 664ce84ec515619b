/** Whether profiles of cuts follow the model. */
import { needed } from '../../statement/declare.ts';

export const cutKeeping = needed('choice', 'which', 'Whether the outlines change with what is cut.', {
  default: 'following',
  choices: { following: 'following the model', fixed: 'as they are now' },
});
