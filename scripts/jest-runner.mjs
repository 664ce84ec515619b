/** Jest's runner without contexts: suite after suite in two threads. In processes its start is a race that one of two may lose. */
import { createRunner } from 'jest-light-runner';

export default createRunner({ runtime: 'worker_threads' });
