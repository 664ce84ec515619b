/**
 * The page's side of the kernel: one worker at a time, replaced when it dies, runs away or grows too large. A content
 * over which the kernel stopped is not tried again: where that is a step, the part goes on without it.
 */
import type { ItemId, KadrelDocument } from '@kadrel/core';
import { KernelError } from './kernelError.ts';
import { DocumentSender, type DocumentNews } from './documents.ts';
import { numbered, type Answers, type FromWorker, type Port, type Request } from './protocol.ts';
import type { Evaluation } from './evaluate.ts';
import { evaluationOf } from './fromPrebuilt.ts';
import { KnownFacts, type Shown } from './knownFacts.ts';
import type { PrebuiltSolids } from './prebuilt.ts';

/** What the kernel is doing, for the page to tell. */
export type HostState =
  /** Somebody waits for it. */
  | { readonly at: 'starting' }
  | { readonly at: 'idle' }
  /** It could not be started, and is not tried again. */
  | { readonly at: 'failed'; readonly reason: string }
  | {
      readonly at: 'working';
      readonly part?: ItemId;
      readonly done: number;
      readonly of: number;
      readonly since: number;
    };

/** Where workers come from, and who is notified of them. */
export interface HostOptions {
  readonly spawn: () => Port;
  /** Takes over a worker that is closed with nothing to do and little in its memory; without it, such a worker ends. */
  readonly keep?: (port: Port) => void;
  readonly now: () => number;
  /** A part that builds for longer than this is given up. */
  readonly patienceMs?: number;
  /** The worker is replaced when its memory has grown beyond this and it is idle. */
  readonly recycleBytes?: number;
  readonly onState?: (state: HostState) => void;
  /** What the same kernel has built before. */
  readonly prebuilt?: PrebuiltSolids;
}

/** What is to be built of a document. */
export interface EvaluateWhat {
  /** Parts besides the visible ones. */
  readonly also?: readonly ItemId[];
  /** A preview: the facts of what stands are kept beside its own. */
  readonly isPassing?: boolean;
}

const PATIENCE_MS = 120_000;
/** A worker that cannot even start is tried this often, and then given up. */
const MAX_FALSE_STARTS = 3;
/** The kernel's memory only grows, and ends at 4 GiB: a quarter of it leaves room for any one operation. */
const RECYCLE_BYTES = 1 << 30;
/** What a worker that waits for the next project may hold on to. */
const KEEP_BYTES = RECYCLE_BYTES / 4;

interface Job {
  readonly id: number;
  readonly request: Request;
  readonly resolve: (answer: never) => void;
  readonly reject: (error: unknown) => void;
}

/** Looks after a worker with a kernel: asks it, cancels it, and replaces it where it dies. */
export class KernelHost {
  private port: Port | undefined;
  private ready = false;
  private lastId = 0;
  private queue: Job[] = [];
  private running: Job | undefined;
  private at: { readonly part?: ItemId; readonly key: string } | undefined;
  /** How many contents the worker knows that it is not to build. */
  private poisonedThere = 0;
  /** The worker knows what it need not build. */
  private isToldOfPrebuilt = false;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private readonly poisoned = new Map<string, string>();
  private readonly known: KnownFacts;
  private readonly documents = new DocumentSender();
  private heapBytes = 0;
  /** When the running request was begun. */
  private since = 0;
  private falseStarts = 0;
  private failed: string | undefined;
  /** Counts how often a worker was started, for those who watch. */
  starts = 0;

  constructor(private readonly options: HostOptions) {
    this.known = new KnownFacts(options.prebuilt);
  }

  /** Starts a kernel, where none is, before the first that is asked of it. */
  warm(): void {
    if (!this.port && this.failed === undefined) this.start();
  }

  /** What a document comes to, where all of it was built before; nothing is asked of the kernel. */
  prebuilt(document: KadrelDocument): Shown | undefined {
    const evaluation = evaluationOf(document, this.known.prebuilt);
    return evaluation && this.known.shown(document, evaluation, { isPassing: false });
  }

  /**
   * Builds the document. A newer evaluation takes the place of one that still waits, which is then rejected as
   * superseded. Facts of every part come with it, known or new.
   */
  async evaluate(
    document: KadrelDocument,
    { also = [], isPassing = false }: EvaluateWhat = {},
  ): Promise<Shown> {
    // A look at something else takes nobody's place.
    const waiting = isPassing ? [] : this.queue.filter((job) => job.request.ask === 'evaluate');
    this.queue = this.queue.filter((job) => !waiting.includes(job));
    for (const job of waiting) job.reject(new KernelError('superseded', 'A newer state took its place.'));
    const request: Request = { ask: 'evaluate', document, known: [], also, isPassing };
    const answer = await this.ask<'evaluate'>(request);
    return this.known.shown(document, answer, { isPassing });
  }

  ask<K extends keyof Answers>(request: Extract<Request, { ask: K }>): Promise<Answers[K]> {
    if (this.failed !== undefined) return Promise.reject(new KernelError('crashed', this.failed));
    return new Promise<Answers[K]>((resolve, reject) => {
      this.queue.push({ id: ++this.lastId, request, resolve: resolve, reject });
      this.warm();
      if (!this.ready) this.options.onState?.({ at: 'starting' });
      this.next();
    });
  }

  /** Stops what is running, and what waits to be built; both are rejected as cancelled, and the model stays as it was. */
  cancel(): void {
    if (!this.running) return;
    const stopped = [this.running, ...this.queue.filter((job) => job.request.ask === 'evaluate')];
    this.running = undefined;
    this.queue = this.queue.filter((job) => !stopped.includes(job));
    this.restart();
    for (const job of stopped) job.reject(new KernelError('cancelled', 'Cancelled.'));
    this.next();
  }

  /** Ends a preview that is being built; what waits goes on. */
  dropPassing(): void {
    const dropped = this.running;
    if (dropped?.request.ask !== 'evaluate' || !dropped.request.isPassing) return;
    this.running = undefined;
    this.restart();
    dropped.reject(new KernelError('superseded', 'Nobody waits for it any more.'));
    this.next();
  }

  /** Nothing is asked of the kernel; it may be starting still. */
  get isIdle(): boolean {
    return !this.running && this.queue.length === 0;
  }

  close(): void {
    const { port, options, heapBytes } = this;
    if (port && options.keep && this.isIdle && heapBytes <= KEEP_BYTES) {
      this.port = undefined;
      options.keep(port);
    }
    this.end(new KernelError('cancelled', 'Closed.'));
  }

  private end(error: KernelError): void {
    clearTimeout(this.timer);
    this.port?.terminate();
    this.port = undefined;
    const left = [...(this.running ? [this.running] : []), ...this.queue];
    this.running = undefined;
    this.queue = [];
    for (const job of left) job.reject(error);
  }

  private start(): void {
    this.starts += 1;
    this.documents.reset();
    this.poisonedThere = 0;
    this.isToldOfPrebuilt = false;
    this.ready = false;
    this.heapBytes = 0;
    const port = this.options.spawn();
    this.port = port;
    this.options.onState?.({ at: this.isIdle ? 'idle' : 'starting' });
    port.listen(
      (message) => {
        if (port === this.port) this.receive(message);
      },
      (reason) => {
        if (port === this.port) this.died(reason);
      },
    );
  }

  private restart(): void {
    clearTimeout(this.timer);
    this.port?.terminate();
    this.start();
  }

  private next(): void {
    if (!this.ready || this.running || !this.port) return;
    const job = this.queue.shift();
    if (!job) {
      this.options.onState?.({ at: 'idle' });
      return;
    }
    this.running = job;
    this.at = undefined;
    this.watch();
    this.since = this.options.now();
    this.options.onState?.({ at: 'working', done: 0, of: 0, since: this.since });
    const request: Request =
      job.request.ask === 'evaluate' ? { ...job.request, known: this.known.keys } : job.request;
    let news: DocumentNews | undefined;
    const sent = numbered(request, (document) => {
      const found = this.documents.numberOf(document);
      news = found.news;
      return found.number;
    });
    const poisoned = this.poisonedThere < this.poisoned.size ? { poisoned: [...this.poisoned] } : {};
    this.poisonedThere = this.poisoned.size;
    const prebuilt = this.isToldOfPrebuilt ? {} : { prebuilt: this.known.prebuilt };
    this.isToldOfPrebuilt = true;
    this.port.post({ id: job.id, ...(news ? { news } : {}), ...poisoned, ...prebuilt, request: sent });
  }

  private watch(): void {
    clearTimeout(this.timer);
    const patience = this.options.patienceMs ?? PATIENCE_MS;
    this.timer = setTimeout(
      () => this.died(`It took longer than ${Math.round(patience / 1000)} s.`),
      patience,
    );
  }

  private receive(message: FromWorker): void {
    if (message.say === 'ready') {
      this.ready = true;
      this.falseStarts = 0;
      this.next();
      return;
    }
    if (message.say === 'broken') {
      this.died(message.reason);
      return;
    }
    const job = this.running;
    if (!job || message.id !== job.id) return;
    if (message.say === 'progress') {
      this.at = { part: message.part, key: message.key };
      this.watch();
      this.options.onState?.({
        at: 'working',
        part: message.part,
        done: message.done,
        of: message.of,
        since: this.since,
      });
      return;
    }
    if (message.say === 'building') {
      this.at = { ...this.at, key: message.key };
      return;
    }
    clearTimeout(this.timer);
    this.running = undefined;
    if (message.say === 'refusal')
      job.reject(new KernelError('refused', `${message.fault.reason} ${message.fault.remedy}`));
    else {
      if (job.request.ask === 'evaluate') this.heapBytes = (message.answer as Evaluation).heapBytes;
      job.resolve(message.answer as never);
    }
    if (this.heapBytes > (this.options.recycleBytes ?? RECYCLE_BYTES)) this.restart();
    this.next();
  }

  /** The worker is gone or useless: names the part, remembers its content, and goes on with a new worker. */
  private died(reason: string): void {
    if (!this.ready && ++this.falseStarts >= MAX_FALSE_STARTS) {
      this.giveUp(reason);
      return;
    }
    const job = this.running;
    this.running = undefined;
    if (this.at) this.poisoned.set(this.at.key, `The kernel stopped while it built this. ${reason}`);
    this.restart();
    job?.reject(new KernelError('crashed', `The kernel stopped. ${reason}`, this.at?.part));
    this.at = undefined;
    this.next();
  }

  private giveUp(reason: string): void {
    this.failed = `The kernel could not be started. ${reason}`;
    this.options.onState?.({ at: 'failed', reason: this.failed });
    this.end(new KernelError('crashed', this.failed));
  }
}
