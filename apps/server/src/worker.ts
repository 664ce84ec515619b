/** A thread for tasks, with connections of its own. */
import 'reflect-metadata';
import { workerData } from 'node:worker_threads';
import { Logger } from '@nestjs/common';
import { MikroORM } from '@mikro-orm/postgresql';
import { databaseConfig } from './data/config.ts';
import { logOf } from './operation/logging.ts';
import type { WorkerData } from './projects/taskPool.ts';
import { TaskRunner } from './projects/taskRunner.ts';
import type { Answer, Task } from './projects/tasks.ts';

const { databaseUrl, logLevel } = workerData as WorkerData;
const log = logOf(logLevel);
Logger.overrideLogger({
  log: () => undefined,
  warn: (message: unknown) => log.warn(message),
  error: (message: unknown) => log.error(message),
});
const orm = await MikroORM.init(databaseConfig(databaseUrl, 4));
const runner = new TaskRunner(orm.em);

export default (task: Task): Promise<Answer> => runner.run(task);
