/** Jest's runner without contexts, in processes of its own: threads would share one address space of 4 GiB for all kernels. */
import { createRunner } from 'jest-light-runner';

export default createRunner({ runtime: 'child_process' });
