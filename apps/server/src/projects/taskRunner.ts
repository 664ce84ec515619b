import { createHash } from 'node:crypto';
import { LockMode } from '@mikro-orm/core';
import { EntityManager } from '@mikro-orm/postgresql';
import { HttpStatus, Logger } from '@nestjs/common';
import {
  isEditFault,
  jsonFault,
  readDocument,
  sealEdits,
  type Edit,
  type KadrelDocument,
} from '@kadrel/core';
import { notFound, Problem, problemOf, problemText } from '../common/problem.ts';
import { Asset, EditRow, Member, Project } from '../data/entities.ts';
import { fileSchema, keptEditsSchema, listedOf, newEditsSchema } from './bodies.ts';
import { Heads, type Head } from './heads.ts';
import { editsBetween, editsText, headAt, sourcesOf } from './history.ts';
import { pictureIn } from './picture.ts';
import { copyProject, storeEdits, storeProject, storeSnapshot, type NewProject } from './storing.ts';
import { MAX_LIGHT, MAX_LIGHT_PARTS, type Answer, type Asking, type Task } from './tasks.ts';
import { isSnapshotDue, requireThisVersion, withoutDoubles, type Save } from './saves.ts';

const MAX_HEADS = 50;
/** Edits that come with a project that is opened: what is likely to be undone. The ones before them are asked for in stretches. */
const LATEST_EDITS = 100;
type OfKind<K extends Task['kind']> = Task & { kind: K };

/** Does tasks, one after another for each project. What goes wrong is an answer too. */
export class TaskRunner {
  private readonly log = new Logger('Kadrel');
  private readonly heads = new Heads(MAX_HEADS);

  constructor(private readonly em: EntityManager) {}

  async run(task: Task): Promise<Answer> {
    try {
      return await this.done(task);
    } catch (error) {
      const problem = problemOf(error, this.log);
      return { status: problem.status, text: problemText(problem) };
    }
  }

  private done(task: Task): Promise<Answer> {
    switch (task.kind) {
      case 'append':
        return this.append(task as OfKind<'append'>);
      case 'keep':
        return this.keep(task as OfKind<'keep'>);
      case 'from-file':
        return this.fromFile(task);
      case 'picture':
        return this.picture(task as OfKind<'picture'>);
      case 'open':
        return this.open(task as OfKind<'open'>);
      case 'duplicate':
        return this.duplicate(task as OfKind<'duplicate'>);
    }
  }

  private async open({ asking, project: id }: OfKind<'open'>): Promise<Answer> {
    const em = this.em.fork();
    const project = await projectOf(em, asking, id);
    const { revision } = project;
    const { document } = await this.headOf(em, id, revision);
    const latest = await editsText(em, id, [Math.max(0, revision - LATEST_EDITS), revision]);
    const opened = JSON.stringify({ ...listedOf(project), document });
    return { status: 200, text: `${opened.slice(0, -1)},"edits":${latest}}` };
  }

  private async duplicate({ asking, project: id }: OfKind<'duplicate'>): Promise<Answer> {
    const em = this.em.fork();
    const source = await projectOf(em, asking, id);
    const { document: start } = await this.headOf(em, id, source.revision);
    const name = `${source.name} copy`.slice(0, 120);
    return this.created(asking, { name, start, picture: source.picture ?? null });
  }

  private fromFile({ asking, body }: OfKind<'from-file'>): Promise<Answer> {
    const { name, document } = fileSchema.parse(jsonIn(body));
    return this.created(asking, { name, start: documentIn(document) });
  }

  private async created(asking: Asking, made: NewProject): Promise<Answer> {
    const project = await this.em.fork().transactional((em) => storeProject(em, asking, made));
    return { status: 201, text: JSON.stringify(listedOf(project)) };
  }

  /** A project that goes on from a revision of another one with edits that did not fit there. All of it, or nothing. */
  private async keep({ asking, project: id, body }: OfKind<'keep'>): Promise<Answer> {
    const { name, ...sent } = keptEditsSchema.parse(jsonIn(body));
    const save = withoutDoubles(sent);
    requireThisVersion(save.edits);
    const made = await this.em.fork().transactional(async (em) => {
      const source = await projectOf(em, asking, id);
      if (save.base > source.revision)
        throw new Problem(HttpStatus.CONFLICT, 'This project is not that far yet.');
      const copy = await copyProject(em, asking, { source, name, base: save.base });
      const fresh = await this.freshOf(em, copy, save);
      copy.revision = (
        await this.added(em, asking, { project: copy.id, base: save.base, edits: fresh })
      ).head.revision;
      return copy;
    });
    return { status: 201, text: JSON.stringify(listedOf(made)) };
  }

  /**
   * Appends edits made on revision `base`, under the project's row lock. Edits that are stored already (sent again because the answer
   * was lost) are skipped. On a stale base nothing is stored, and the refusal carries the edits that the page misses.
   */
  private async append({ asking, project: id, body }: OfKind<'append'>): Promise<Answer> {
    const { base, edits } = withoutDoubles(newEditsSchema.parse(jsonIn(body)));
    requireThisVersion(edits);
    const { head, from } = await this.em.fork().transactional(async (em) => {
      const project = await lockedProject(em, asking, id);
      const fresh = await this.freshOf(em, project, { base, edits });
      return this.added(em, asking, { project: id, base: project.revision, edits: fresh });
    });
    this.heads.keep(id, head);
    const { revision, lastTime, document } = head;
    const answer = { status: 201, text: JSON.stringify({ revision }) };
    const isDue = isSnapshotDue(from, revision);
    // A large document is not written out for each edit of it.
    if (!isDue && Object.keys(document.items).length > MAX_LIGHT_PARTS) return answer;
    const text = JSON.stringify(document);
    if (isDue) await storeSnapshot(this.em.fork(), id, { revision, text });
    return text.length > MAX_LIGHT ? answer : { ...answer, head: { revision, lastTime, document: text } };
  }

  /** Unpacking a picture takes longer than others should wait. */
  private async picture({ asking, project: id, body }: OfKind<'picture'>): Promise<Answer> {
    const em = this.em.fork();
    const project = await projectOf(em, asking, id);
    const bytes = pictureIn(body);
    const hash = createHash('sha256').update(bytes).digest('hex');
    // Stored anew even where it is there: what no project shows is only swept when it has lain for a while.
    await em.upsert(Asset, { hash, mediaType: 'image/png', bytes, storedAt: new Date() });
    project.picture = hash;
    await em.flush();
    return { status: 200, text: JSON.stringify(listedOf(project)) };
  }

  /** Those that are not stored yet. Throws a Problem where others saved after the base. */
  private async freshOf(em: EntityManager, project: Project, { base, edits }: Save): Promise<Edit[]> {
    const stored = await em.find(
      EditRow,
      { project: project.id, editId: { $in: edits.map((edit) => edit.id) } },
      { fields: ['editId', 'revision'] },
    );
    // All that came after the base must be ours already.
    const ours = stored.filter((row) => row.revision > base).length;
    if (base + ours !== project.revision)
      throw new Problem(HttpStatus.CONFLICT, 'Somebody else changed this project meanwhile.', {
        revision: project.revision,
        edits: await editsBetween(em, project.id, [base, project.revision]),
      });
    const known = new Set(stored.map((row) => row.editId));
    return edits.filter((edit) => !known.has(edit.id));
  }

  /** Within a transaction that keeps others from the project. */
  private async added(
    em: EntityManager,
    asking: Asking,
    { project, base, edits }: Save & { project: string },
  ): Promise<{ head: Head; from: number }> {
    const before = await this.headOf(em, project, base);
    if (edits.length === 0) return { head: before, from: base };
    const sources = await sourcesOf(em, project, edits);
    const sealed = sealEdits(before.document, edits, {
      author: asking.name,
      now: Date.now(),
      lastTime: before.lastTime,
      source: (id) => sources.get(id),
    });
    if (isEditFault(sealed))
      throw new Problem(HttpStatus.UNPROCESSABLE_ENTITY, sealed.message, { edit: sealed.edit });
    const revision = await storeEdits(em, { project, account: asking.id, base, edits: sealed.edits });
    if (revision === undefined) throw notFound();
    const lastTime = sealed.edits.at(-1)!.line.time;
    return { head: { revision, document: sealed.document, lastTime }, from: base };
  }

  private async headOf(em: EntityManager, project: string, revision: number): Promise<Head> {
    return this.heads.at(project, revision) ?? (await headAt(em, project, revision));
  }
}

/** Large bodies come as bytes. */
function jsonIn(body: unknown): unknown {
  if (!(body instanceof Uint8Array)) return body;
  try {
    return JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(body)) as unknown;
  } catch {
    throw new Problem(HttpStatus.BAD_REQUEST, 'The request is not understood.');
  }
}

function documentIn(json: unknown): KadrelDocument {
  const fault = jsonFault(json);
  if (fault !== undefined) throw new Problem(HttpStatus.UNPROCESSABLE_ENTITY, fault);
  try {
    return readDocument(json);
  } catch (error) {
    if (!(error instanceof Error)) throw error;
    throw new Problem(HttpStatus.UNPROCESSABLE_ENTITY, error.message);
  }
}

/** A project that the account does not belong to is as absent as one that does not exist. */
export async function projectOf(em: EntityManager, asking: Asking, id: string): Promise<Project> {
  const member = await em.findOne(Member, { project: id, account: asking.id }, { populate: ['project'] });
  if (!member) throw notFound();
  return member.project;
}

async function lockedProject(em: EntityManager, asking: Asking, id: string): Promise<Project> {
  const member = await em.findOne(Member, { project: id, account: asking.id });
  if (!member) throw notFound();
  return em.findOneOrFail(Project, id, { lockMode: LockMode.PESSIMISTIC_WRITE, refresh: true });
}
