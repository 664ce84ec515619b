import { emptyDocument } from '@kadrel/core';
import { KernelHost, type HostState } from './host.ts';
import { KernelError } from './kernelError.ts';
import type { Evaluation } from './evaluate.ts';
import type { ShapeFacts } from './shapes.ts';
import type { FromWorker, Port, ToWorker } from './protocol.ts';

/** A worker that does what the test tells it to, in the words of the protocol. */
class PuppetPort implements Port {
  readonly received: ToWorker[] = [];
  terminated = false;
  say: (message: FromWorker) => void = () => undefined;
  die: (reason: string) => void = () => undefined;
  post(message: ToWorker) {
    this.received.push(message);
  }
  listen(onMessage: (message: FromWorker) => void, onDeath: (reason: string) => void) {
    this.say = onMessage;
    this.die = onDeath;
  }
  terminate() {
    this.terminated = true;
  }
  answer(evaluation: Partial<Evaluation>) {
    const answer = {
      parts: {},
      wholes: {},
      failures: [],
      notices: [],
      shapes: [],
      heapBytes: 0,
      ...evaluation,
    };
    this.say({ say: 'answer', id: this.received.at(-1)!.id, answer });
  }
}

interface PuppetOptions {
  readonly patienceMs?: number;
  readonly recycleBytes?: number;
  readonly keep?: (port: Port) => void;
}

function hostWithPuppets(options: PuppetOptions = {}) {
  const ports: PuppetPort[] = [];
  const states: HostState[] = [];
  const host = new KernelHost({
    ...options,
    now: () => 0,
    onState: (state) => states.push(state),
    spawn: () => {
      const port = new PuppetPort();
      ports.push(port);
      return port;
    },
  });
  host.warm();
  return { host, ports, states };
}

const document = emptyDocument();
const fact = (key: string) => ({ key }) as unknown as ShapeFacts;
const settle = () => new Promise((resolve) => setTimeout(resolve, 0));

test('a request waits until the kernel is ready', async () => {
  const { host, ports } = hostWithPuppets();
  const result = host.evaluate(document);
  expect(ports[0]!.received).toEqual([]);
  ports[0]!.say({ say: 'ready' });
  ports[0]!.answer({ shapes: [fact('a')], parts: { p1: { key: 'a' } } });
  expect((await result).factsOf('a')).toBeDefined();
  host.close();
});

test('what the page knows is not asked for again', async () => {
  const { host, ports } = hostWithPuppets();
  ports[0]!.say({ say: 'ready' });
  const first = host.evaluate(document);
  ports[0]!.answer({ shapes: [fact('a')], parts: { p1: { key: 'a' } } });
  await first;
  const second = host.evaluate(document);
  expect(ports[0]!.received[1]!.request).toMatchObject({ known: ['a'] });
  ports[0]!.answer({ parts: { p1: { key: 'a' } } });
  expect((await second).factsOf('a')).toBeDefined();
  host.close();
});

test('however many previews pass, the facts of what stands stay', async () => {
  const { host, ports } = hostWithPuppets();
  ports[0]!.say({ say: 'ready' });
  const standing = host.evaluate(document);
  ports[0]!.answer({ shapes: [fact('a')], parts: { p1: { key: 'a' } } });
  const { factsOf } = await standing;
  for (let i = 0; i < 200; i++) {
    const passing = host.evaluate(document, { isPassing: true });
    ports[0]!.answer({ shapes: [fact(`b${i}`)], parts: { p1: { key: `b${i}` } } });
    await passing;
  }
  expect(factsOf('a')).toBeDefined();
  expect(factsOf('b0')).toBeUndefined();
  host.close();
});

test('a newer state takes the place of one that waits', async () => {
  const { host, ports } = hostWithPuppets();
  ports[0]!.say({ say: 'ready' });
  const running = host.evaluate(document);
  const stale = expect(host.evaluate(document)).rejects.toMatchObject({ code: 'superseded' });
  const newest = host.evaluate(document);
  await stale;
  ports[0]!.answer({});
  await running;
  ports[0]!.answer({});
  await newest;
  expect(ports[0]!.received).toHaveLength(2);
  host.close();
});

test('a preview that waits takes nobody’s place', async () => {
  const { host, ports } = hostWithPuppets();
  ports[0]!.say({ say: 'ready' });
  const [running, waiting, passing] = [
    host.evaluate(document),
    host.evaluate(document),
    host.evaluate(document, { isPassing: true }),
  ];
  for (let i = 0; i < 3; i++) {
    ports[0]!.answer({ shapes: [fact('a')], parts: { p1: { key: 'a' } } });
    await settle();
  }
  expect((await Promise.all([running, waiting, passing])).map(({ parts }) => parts.p1!.key)).toEqual([
    'a',
    'a',
    'a',
  ]);
  host.close();
});

test('a preview that is dropped gives way to what waits behind it', async () => {
  const { host, ports } = hostWithPuppets();
  ports[0]!.say({ say: 'ready' });
  const passing = expect(host.evaluate(document, { isPassing: true })).rejects.toMatchObject({
    code: 'superseded',
  });
  const waiting = host.evaluate(document);
  host.dropPassing();
  await passing;
  ports[1]!.say({ say: 'ready' });
  ports[1]!.answer({ shapes: [fact('a')], parts: { p1: { key: 'a' } } });
  expect((await waiting).factsOf('a')).toBeDefined();
  // What is no preview is not dropped.
  const running = host.evaluate(document);
  host.dropPassing();
  ports[1]!.answer({ parts: { p1: { key: 'a' } } });
  expect((await running).factsOf('a')).toBeDefined();
  host.close();
});

test('a crash names the part, starts a new worker, and does not try that content again', async () => {
  const { host, ports } = hostWithPuppets();
  ports[0]!.say({ say: 'ready' });
  const crashed = expect(host.evaluate(document)).rejects.toMatchObject({ code: 'crashed', part: 'p7' });
  ports[0]!.say({ say: 'progress', id: 1, part: 'p7', key: 'bad content', done: 0, of: 1 });
  ports[0]!.die('memory access out of bounds');
  await crashed;
  expect([ports[0]!.terminated, ports.length]).toEqual([true, 2]);
  const next = host.evaluate(document);
  ports[1]!.say({ say: 'ready' });
  expect(ports[1]!.received[0]!.poisoned).toEqual([
    ['bad content', expect.stringContaining('out of bounds')],
  ]);
  ports[1]!.answer({});
  await next;
  host.close();
});

test('what is not tried again is the content that was being built, and the worker is told once', async () => {
  const { host, ports } = hostWithPuppets();
  ports[0]!.say({ say: 'ready' });
  const crashed = expect(host.evaluate(document)).rejects.toMatchObject({ code: 'crashed', part: 'p7' });
  ports[0]!.say({ say: 'progress', id: 1, part: 'p7', key: 'all of it', done: 0, of: 1 });
  for (const key of ['second step', 'first step', 'second step'])
    ports[0]!.say({ say: 'building', id: 1, key });
  ports[0]!.say({ say: 'broken', reason: 'null function' });
  await crashed;
  ports[1]!.say({ say: 'ready' });
  for (const [i, poisoned] of [
    [['second step', expect.stringContaining('null function')]],
    undefined,
  ].entries()) {
    const next = host.evaluate(document);
    await settle();
    expect(ports[1]!.received[i]!.poisoned).toEqual(poisoned);
    ports[1]!.answer({});
    await next;
  }
  host.close();
});

test('an endless operation is given up after the patience is over', async () => {
  const { host, ports } = hostWithPuppets({ patienceMs: 20 });
  ports[0]!.say({ say: 'ready' });
  await expect(host.evaluate(document)).rejects.toMatchObject({
    code: 'crashed',
    message: expect.stringContaining('longer than') as string,
  });
  expect(ports).toHaveLength(2);
  host.close();
});

test('cancel stops the worker, and the next request finds a new one', async () => {
  const { host, ports, states } = hostWithPuppets();
  ports[0]!.say({ say: 'ready' });
  const stopped = host.evaluate(document);
  expect(states.at(-1)).toMatchObject({ at: 'working' });
  host.cancel();
  await expect(stopped).rejects.toBeInstanceOf(KernelError);
  await expect(stopped).rejects.toMatchObject({ code: 'cancelled' });
  const next = host.evaluate(document);
  ports[1]!.say({ say: 'ready' });
  ports[1]!.answer({});
  await next;
  await settle();
  expect(host.isIdle).toBe(true);
  host.close();
});

test('a worker whose memory has grown too large is replaced between two requests', async () => {
  const { host, ports } = hostWithPuppets({ recycleBytes: 1000 });
  ports[0]!.say({ say: 'ready' });
  const big = host.evaluate(document);
  ports[0]!.answer({ heapBytes: 2000 });
  await big;
  expect([ports[0]!.terminated, ports.length]).toEqual([true, 2]);
  host.close();
});

test('a worker without work is kept for the next project, and one that is busy or has grown ends', async () => {
  const kept: Port[] = [];
  const closed = async (heapBytes: number, isBusy: boolean) => {
    const { host, ports } = hostWithPuppets({ keep: (port) => kept.push(port) });
    ports[0]!.say({ say: 'ready' });
    const built = host.evaluate(document);
    ports[0]!.answer({ heapBytes });
    await built;
    const left = isBusy ? expect(host.evaluate(document)).rejects.toMatchObject({ code: 'cancelled' }) : null;
    host.close();
    await left;
    return ports[0]!;
  };
  const idle = await closed(1000, false);
  expect([kept, idle.terminated]).toEqual([[idle], false]);
  const busy = await closed(1000, true);
  const large = await closed(2 ** 29, false);
  expect([kept.length, busy.terminated, large.terminated]).toEqual([1, true, true]);
});

test('a host takes over a worker whose documents it never sent', async () => {
  const { host, ports } = hostWithPuppets({ keep: () => undefined });
  ports[0]!.say({ say: 'ready' });
  const first = host.evaluate(document);
  ports[0]!.answer({});
  await first;
  host.close();
  const next = new KernelHost({ now: () => 0, spawn: () => ports[0]! });
  next.warm();
  ports[0]!.say({ say: 'ready' });
  void next.evaluate({ ...document }).catch(() => undefined);
  expect(ports[0]!.received.at(-1)!.news).toMatchObject({ number: 1, from: null });
  next.close();
});

test('a kernel that cannot start is given up after three tries, and says so', async () => {
  const { host, ports, states } = hostWithPuppets();
  const waiting = expect(host.evaluate(document)).rejects.toMatchObject({
    code: 'crashed',
  });
  for (let i = 0; i < 3; i++) ports[i]!.die('404');
  await waiting;
  expect([ports.length, states.at(-1)]).toEqual([
    3,
    { at: 'failed', reason: 'The kernel could not be started. 404' },
  ]);
  await expect(host.evaluate(document)).rejects.toMatchObject({
    code: 'crashed',
    message: expect.stringContaining('could not be started') as string,
  });
});
