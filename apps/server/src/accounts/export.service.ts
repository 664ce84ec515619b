import { Injectable } from '@nestjs/common';
import type { Account } from '../data/entities.ts';
import { ProjectsService } from '../projects/projects.service.ts';

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
      const edits = await this.projects.editsAfter(account, id, 0);
      yield `${separator}{"project":${text},"history":${edits}}`;
      separator = ',';
    }
    yield ']}';
  }
}
