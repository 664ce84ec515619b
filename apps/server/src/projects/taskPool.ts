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
      throw refusalOf(error);
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

function refusalOf(error: unknown): unknown {
  if (codeOf(error) === 'ERR_WORKER_OUT_OF_MEMORY')
    return new Problem(HttpStatus.UNPROCESSABLE_ENTITY, 'This takes more memory than one project may have.');
  if (error instanceof Error && error.name === 'AbortError')
    return new Problem(
      HttpStatus.UNPROCESSABLE_ENTITY,
      'This takes the server too long. Nothing was changed.',
    );
  if (error instanceof Error && /queue/i.test(error.message))
    return new Problem(
      HttpStatus.SERVICE_UNAVAILABLE,
      'The server is busy. Nothing is lost; try again in a moment.',
    );
  return error;
}
