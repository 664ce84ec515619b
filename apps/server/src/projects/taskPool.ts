import { HttpStatus, Inject, Injectable, type OnModuleDestroy } from '@nestjs/common';
import { EntityManager } from '@mikro-orm/postgresql';
import { Piscina } from 'piscina';
import { codeOf } from '../common/errorLog.ts';
import { Problem } from '../common/problem.ts';
import { SETTINGS, type Settings } from '../common/settings.ts';
import { TaskRunner } from './taskRunner.ts';
import type { Answer, Task } from './tasks.ts';

/** Two threads: a heavy project leaves one for the others. */
const THREADS = 2;
const MAX_MEMORY_MB = 768;
const MAX_WAITING = 500;
/** No task takes so long by honest work. */
const MAX_MS = 60_000;

/** Tasks run in worker threads, always the same one for a project, which keeps its document at hand. */
@Injectable()
export class TaskPool implements OnModuleDestroy {
  private readonly threads: readonly Piscina<Task, Answer>[];
  private readonly inline: TaskRunner;

  constructor(em: EntityManager, @Inject(SETTINGS) settings: Settings) {
    const { workerFile: filename, databaseUrl, logLevel } = settings;
    // Without a built worker, as in unit tests, the same code runs here.
    this.inline = new TaskRunner(em);
    this.threads =
      filename === undefined
        ? []
        : Array.from({ length: THREADS }, () => threadOf(filename, { databaseUrl, logLevel }));
  }

  /** Throws a Problem where the work takes too much time or memory, or too many wait. */
  async run(task: Task): Promise<Answer> {
    const key = 'project' in task ? task.project : task.asking.id;
    const thread = this.threads[parseInt(key.slice(0, 8), 16) % THREADS];
    if (!thread) return this.inline.run(task);
    try {
      return await thread.run(task, { signal: AbortSignal.timeout(MAX_MS) });
    } catch (error) {
      throw refusalOf(error, task);
    }
  }

  async onModuleDestroy(): Promise<void> {
    await Promise.all(this.threads.map((thread) => thread.close()));
  }
}

/** What a thread is given at its start. */
export interface WorkerData {
  readonly databaseUrl: string;
  readonly logLevel: string;
}

const threadOf = (filename: string, workerData: WorkerData) =>
  new Piscina<Task, Answer>({
    filename,
    workerData,
    minThreads: 1,
    maxThreads: 1,
    concurrentTasksPerWorker: 4,
    maxQueue: MAX_WAITING,
    resourceLimits: { maxOldGenerationSizeMb: MAX_MEMORY_MB },
  });

/**
 * What a thread does not survive is put down to the task that is large; others that ran or waited beside it may come again, since a page
 * sets aside for good what is refused for good.
 */
export function refusalOf(error: unknown, task: Task): unknown {
  const reason = reasonOf(error);
  if (reason === undefined) return error;
  const isLarge = 'body' in task && task.body instanceof Uint8Array;
  return isLarge && reason !== BUSY
    ? new Problem(HttpStatus.UNPROCESSABLE_ENTITY, reason)
    : new Problem(HttpStatus.SERVICE_UNAVAILABLE, BUSY);
}

const BUSY = 'The server is busy. Nothing is lost; try again in a moment.';

/** Of what the pool itself says; undefined for everything else. */
function reasonOf(error: unknown): string | undefined {
  if (codeOf(error) === 'ERR_WORKER_OUT_OF_MEMORY')
    return 'This takes more memory than one project may have. Nothing was changed.';
  if (!(error instanceof Error)) return undefined;
  if (error.name === 'AbortError') return 'This takes the server too long. Nothing was changed.';
  return /queue|terminating worker/i.test(error.message) ? BUSY : undefined;
}
