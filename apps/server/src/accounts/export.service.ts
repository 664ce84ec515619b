import { setImmediate } from 'node:timers/promises';
import { Injectable } from '@nestjs/common';
import type { Account } from '../data/entities.ts';
import { EditsService } from '../projects/edits.service.ts';
import { ProjectsService } from '../projects/projects.service.ts';
import { RacksService } from '../racks/racks.service.ts';

/** Edits that are read at once. */
const STRETCH = 500;
/** Characters that are written out at once. */
const PIECE = 64_000;

/** Everything that an account has, in the open format of Kadrel documents. */
@Injectable()
export class ExportService {
  constructor(
    private readonly projects: ProjectsService,
    private readonly edits: EditsService,
    private readonly racks: RacksService,
  ) {}

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
      yield `${separator}{"project":`;
      yield* piecesOf(text);
      yield ',"history":[';
      yield* this.historyOf(account, id);
      yield ']}';
      separator = ',';
    }
    yield '],"racks":[';
    yield* this.racksOf(account);
    yield ']}';
  }

  private async *racksOf(account: Account): AsyncGenerator<string> {
    let separator = '';
    for (const { id } of await this.racks.list(account)) {
      const { name, parts } = await this.racks.open(account, id);
      yield `${separator}{"kadrelRack":1,"name":${JSON.stringify(name)},"parts":[`;
      for (const [i, part] of parts.entries()) yield* piecesOf(`${i > 0 ? ',' : ''}${JSON.stringify(part)}`);
      yield ']}';
      separator = ',';
    }
  }

  private async *historyOf(account: Account, id: string): AsyncGenerator<string> {
    for (let after = 0; ; after += STRETCH) {
      const edits = await this.edits.after(account, id, { after, limit: STRETCH });
      if (edits === '[]') return;
      if (after > 0) yield ',';
      yield* piecesOf(edits.slice(1, -1));
    }
  }
}

/** Long text bit by bit, so that others are answered in between. */
async function* piecesOf(text: string): AsyncGenerator<string> {
  for (let start = 0; start < text.length; start += PIECE) {
    await setImmediate();
    yield text.slice(start, start + PIECE);
  }
}
