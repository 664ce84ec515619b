import { Problem } from '../common/problem.ts';
import { refusalOf } from './taskPool.ts';
import type { Task } from './tasks.ts';

const asking = { id: 'a', name: 'Ada' };
const large: Task = { kind: 'append', asking, project: 'p', body: Buffer.from('{}') };
const small: Task = { kind: 'append', asking, project: 'p', body: { base: 0, edits: [] } };
const named = (name: string, message = '') => Object.assign(new Error(message), { name });
const memory = Object.assign(new Error(), { code: 'ERR_WORKER_OUT_OF_MEMORY' });

// What is refused for good is set aside by the page: it must not meet what only ran beside.
test.each([
  ['too little memory', memory, 422],
  ['too little time', named('AbortError'), 422],
  ['the end of its thread', named('Error', 'Terminating worker thread'), 503],
  ['a full queue', named('Error', 'Task queue is at limit'), 503],
] as const)('%s refuses a large task, and lets small ones come again', (_, error, status) => {
  const [ofLarge, ofSmall] = [refusalOf(error, large), refusalOf(error, small)] as Problem[];
  expect([ofLarge!.getStatus(), ofSmall!.getStatus()]).toEqual([status, 503]);
});

test('what the pool does not know is passed on', () => {
  const error = new Error('Something else.');
  expect(refusalOf(error, large)).toBe(error);
});
