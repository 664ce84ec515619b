/** A thread for tasks, with connections of its own. */
import 'reflect-metadata';
import { workerData } from 'node:worker_threads';
import { MikroORM } from '@mikro-orm/postgresql';
import { databaseConfig } from './data/config.ts';
import { TaskRunner } from './projects/taskRunner.ts';
import type { Answer, Task } from './projects/tasks.ts';

const { databaseUrl } = workerData as { databaseUrl: string };
const orm = await MikroORM.init(databaseConfig(databaseUrl, 4));
const runner = new TaskRunner(orm.em);

export default (task: Task): Promise<Answer> => runner.run(task);
