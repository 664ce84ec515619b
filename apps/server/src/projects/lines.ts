import { HttpStatus } from '@nestjs/common';
import { Problem } from '../common/problem.ts';

/** More requests than this do not wait for one project. */
const MAX_WAITING = 500;

/** Work on one project is done one after another, so that a busy project holds one connection, and not all. */
export class Lines {
  private readonly last = new Map<string, Promise<unknown>>();
  private readonly waiting = new Map<string, number>();

  async inLine<T>(project: string, work: () => Promise<T>): Promise<T> {
    const waiting = this.waiting.get(project) ?? 0;
    if (waiting >= MAX_WAITING)
      throw new Problem(HttpStatus.SERVICE_UNAVAILABLE, 'Too many are saving to this project. Try again.');
    this.waiting.set(project, waiting + 1);
    const before = this.last.get(project) ?? Promise.resolve();
    // Whether what went before succeeded is for whoever asked for it.
    const mine = before.then(work, work);
    this.last.set(project, mine);
    try {
      return await mine;
    } finally {
      const left = this.waiting.get(project)! - 1;
      if (left > 0) this.waiting.set(project, left);
      else {
        this.waiting.delete(project);
        this.last.delete(project);
      }
    }
  }
}
