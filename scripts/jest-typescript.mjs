/** Lets Node read TypeScript, in a thread of the runner. */
import { register } from 'tsx/esm/api';

register();
