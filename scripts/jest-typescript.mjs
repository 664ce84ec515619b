/** Lets Node read TypeScript, in a process of the runner. */
import { register } from 'tsx/esm/api';

register();
