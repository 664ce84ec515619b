import { emptyDocument, isRefusal, perform, plainWorld, verbNamed, type KadrelDocument } from '@kadrel/core';
import { loadKernel } from './node.ts';
import { worldOf } from './world.ts';

const said = (document: KadrelDocument, verb: string, typed: Record<string, unknown>) => {
  let ids = Object.keys(document.items).length;
  return perform(
    verbNamed(verb)!,
    typed,
    document,
    plainWorld(document, () => `p${++ids}`),
  );
};

test('a statement that asks about what cannot be built is refused, and says why', async () => {
  const kernel = await loadKernel();
  let document = emptyDocument();
  for (const [verb, typed] of [
    ['line', { as: 'edge', from: [0, 0, 0], to: [10, 0, 0] }],
    ['raise', { as: 'nothing', profiles: ['edge'], height: 5 }],
    ['box', { as: 'block', size: [10, 10, 10] }],
  ] as const) {
    const done = said(document, verb, typed);
    if (isRefusal(done)) throw new Error(done.message);
    ({ document } = done);
  }
  const refused = perform(
    verbNamed('align')!,
    { parts: ['nothing', 'block'], x: 'min', against: 'last' },
    document,
    worldOf(document, kernel, () => 'q'),
  );
  expect(isRefusal(refused) && refused).toMatchObject({
    code: 'not-built.kernel',
    message: expect.stringMatching(/enclose/) as string,
  });
});
