import { faultOf, type Vec3 } from '@kadrel/core';
import { NothingLeft } from '../booleans/operation.ts';
import { BuildError } from '../occt/occt.ts';
import { CombineError } from './combination.ts';

const fault = faultOf('combine.no-way', {});
const places: readonly Vec3[] = [[1, 2, 3]];

test.each([
  ['of a solid', new BuildError(fault, [], 'why')],
  ['of a combination', new CombineError(fault, [], ['p1', 'p2'])],
  ['that leaves nothing', new NothingLeft(fault)],
])('a failure %s is still that of its step in another frame', (_, error) => {
  error.failedStep = 'fillet';
  const placed = error.placedAt(places);
  expect(placed).toBeInstanceOf(error.constructor);
  expect(placed).toMatchObject({ fault, failedStep: 'fillet', places });
  if (error instanceof CombineError) expect(placed).toMatchObject({ operands: error.operands });
});
