import { Injectable } from '@nestjs/common';
import type { Account } from '../data/entities.ts';
import { ProjectsService } from '../projects/projects.service.ts';

/** Edits that are read at once. */
const STRETCH = 500;

/** Everything that an account has, in the open format of Kadrel documents. */
@Injectable()
export class ExportService {
  constructor(private readonly projects: ProjectsService) {}

  /** Parts of one JSON text, project by project, so that it is never held as a whole. */
  async *textOf(account: Account): AsyncGenerator<string> {
    const { email, name, createdAt } = account;
    yield `{"account":${JSON.stringify({ email, name, createdAt })},"projects":[`;
    let separator = '';
    for (const { id } of await this.projects.list(account)) {
      const { status, text } = await this.projects.open(account, id);
      // Deleted since the list was made.
      if (status === 404) continue;
      if (status !== 200) throw new Error(`A project was not exported: ${status}.`);
      yield `${separator}{"project":${text},"history":[`;
      yield* this.historyOf(account, id);
      yield ']}';
      separator = ',';
    }
    yield ']}';
  }

  private async *historyOf(account: Account, id: string): AsyncGenerator<string> {
    for (let after = 0; ; after += STRETCH) {
      const edits = await this.projects.editsAfter(account, id, { after, limit: STRETCH });
      if (edits === '[]') return;
      yield `${after === 0 ? '' : ','}${edits.slice(1, -1)}`;
    }
  }
}
