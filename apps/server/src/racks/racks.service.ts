import { createHash, randomUUID } from 'node:crypto';
import { EntityManager, LockMode } from '@mikro-orm/postgresql';
import { HttpStatus, Injectable } from '@nestjs/common';
import { rackPartFault, type RackPart } from '@kadrel/core';
import { notFound, Problem } from '../common/problem.ts';
import { Account, Asset, Rack, RackPartRow } from '../data/entities.ts';
import { Quota } from '../projects/quota.ts';
import { projectOf } from '../projects/taskRunner.ts';
import { MAX_PARTS, type RackPicture } from './bodies.ts';

/** More racks than this nobody finds anything in. */
const MAX_RACKS = 60;
/** A part that is larger is a project. */
const MAX_BYTES = 1_000_000;
/** Older versions are forgotten. */
const MAX_VERSIONS = 30;

const MINE = `(r.account_id = ?::uuid or r.project_id in (select m.project_id from member m where m.account_id = ?::uuid))`;
const LISTED = `select r.id, r.name, r.project_id as project,
    (select count(distinct part_id)::int from rack_part p where p.rack_id = r.id) as parts
  from rack r where ${MINE} order by r.created_at`;
const LATEST = `select distinct on (part_id) part_id, body, picture from rack_part where rack_id = ?::uuid order by part_id, version desc`;
const FORGET = `delete from rack_part where rack_id = ?::uuid and part_id = ? and version <= ?::int - ${MAX_VERSIONS}`;

interface ListedRow {
  readonly id: string;
  readonly name: string;
  readonly project: string | null;
  readonly parts: number;
}

interface LatestRow {
  readonly part_id: string;
  readonly body: RackPart;
  readonly picture: string | null;
}

/** What is said of a new rack. */
interface RackSaid {
  readonly name: string;
  readonly project?: string | undefined;
  readonly parts: readonly RackPart[];
}

/** A part on a rack. */
interface OnRack {
  readonly id: string;
  readonly part: string;
}

/** What is read to be changed. */
const LOCKED = { lockMode: LockMode.PESSIMISTIC_WRITE } as const;

/** What can be done to racks. */
@Injectable()
export class RacksService {
  constructor(
    private readonly em: EntityManager,
    private readonly quota: Quota,
  ) {}

  /** One’s own, and those of the projects that one works on. */
  list({ id }: Account): Promise<ListedRow[]> {
    return this.em.getConnection().execute<ListedRow[]>(LISTED, [id, id]);
  }

  async create(account: Account, { name, project, parts }: RackSaid) {
    await this.quota.requireRoom(account.id);
    const em = this.em.fork();
    const racks = await em.count(Rack, { account: account.id });
    if (racks >= MAX_RACKS)
      throw new Problem(
        HttpStatus.FORBIDDEN,
        `You have ${racks} racks, which is as many as one account may have. Delete one first.`,
      );
    const shared = project === undefined ? null : await projectOf(em, account, project);
    const rows = parts.map(checked);
    const rack = em.create(Rack, { id: randomUUID(), name, account: account.id, project: shared });
    for (const row of rows)
      em.create(RackPartRow, { rack, ...row, version: 1, body: { ...row.body, version: 1 } });
    await em.flush();
    return { id: rack.id, name, project: project ?? null, parts: rows.length };
  }

  async open(account: Account, id: string) {
    const em = this.em.fork();
    const { name, project } = await rackOf(em, account, id);
    const rows = await em.getConnection().execute<LatestRow[]>(LATEST, [id]);
    const drawn = rows.filter(({ picture }) => picture !== null).map(({ part_id }) => part_id);
    return { id, name, project: project?.id ?? null, parts: rows.map(({ body }) => body), drawn };
  }

  async rename(account: Account, id: string, name: string) {
    const em = this.em.fork();
    const rack = await rackOf(em, account, id);
    rack.name = name;
    await em.flush();
    const parts = await em.getConnection().execute<unknown[]>(LATEST, [id]);
    return { id, name, project: rack.project?.id ?? null, parts: parts.length };
  }

  async delete(account: Account, id: string): Promise<void> {
    const em = this.em.fork();
    await rackOf(em, account, id);
    await em.nativeDelete(Rack, { id });
  }

  /** A new part, or a new version of one that is there. Returns it as it is kept. */
  async put(account: Account, id: string, part: RackPart): Promise<RackPart> {
    await this.quota.requireRoom(account.id);
    const row = checked(part);
    return this.em.fork().transactional(async (em) => {
      const rack = await rackOf(em, account, id);
      // Versions of one part follow one another, whoever puts them there.
      await em.lock(rack, LockMode.PESSIMISTIC_WRITE);
      const latest = await em.findOne(
        RackPartRow,
        { rack: id, partId: part.id },
        { orderBy: { version: 'desc' } },
      );
      if (!latest) await this.requireRoomFor(em, id);
      const version = (latest?.version ?? 0) + 1;
      const body = { ...part, version };
      em.create(RackPartRow, { rack, ...row, version, body });
      await em.flush();
      await em.execute(FORGET, [id, part.id, version]);
      return body;
    });
  }

  /** Kept by its hash, with the version that it shows. */
  async setPicture(
    account: Account,
    { id, part }: OnRack,
    { version, viewBox, path }: RackPicture,
  ): Promise<void> {
    await this.quota.requireRoom(account.id);
    const bytes = Buffer.from(JSON.stringify({ version, viewBox, path }));
    const hash = createHash('sha256').update(bytes).digest('hex');
    await this.em.fork().transactional(async (em) => {
      await rackOf(em, account, id);
      const row = await em.findOne(RackPartRow, { rack: id, partId: part, version }, LOCKED);
      if (!row) throw notFound();
      if (row.picture === hash) return;
      await em.upsert(Asset, { hash, mediaType: 'application/json', bytes, storedAt: new Date() });
      row.bytes = Buffer.byteLength(JSON.stringify(row.body)) + bytes.length;
      row.picture = hash;
    });
  }

  async picture(account: Account, { id, part }: OnRack, version: number): Promise<Asset> {
    const em = this.em.fork();
    await rackOf(em, account, id);
    const row = await em.findOne(RackPartRow, { rack: id, partId: part, version });
    const asset = row?.picture ? await em.findOne(Asset, { hash: row.picture }) : null;
    if (!asset) throw new Problem(HttpStatus.NOT_FOUND, 'This part has no picture yet.');
    return asset;
  }

  async take(account: Account, id: string, partId: string): Promise<void> {
    const em = this.em.fork();
    await rackOf(em, account, id);
    const gone = await em.nativeDelete(RackPartRow, { rack: id, partId });
    if (gone === 0) throw notFound();
  }

  private async requireRoomFor(em: EntityManager, id: string): Promise<void> {
    const parts = await em.execute<unknown[]>(LATEST, [id]);
    if (parts.length >= MAX_PARTS)
      throw new Problem(HttpStatus.FORBIDDEN, `A rack has at most ${MAX_PARTS} parts. Take one off first.`);
  }
}

/** Throws a Problem that says what is wrong. */
function checked(body: RackPart) {
  const fault = rackPartFault(body);
  if (fault) throw new Problem(HttpStatus.BAD_REQUEST, fault.message);
  const bytes = Buffer.byteLength(JSON.stringify(body));
  if (bytes > MAX_BYTES)
    throw new Problem(
      HttpStatus.PAYLOAD_TOO_LARGE,
      `${body.name} holds ${(bytes / 1e6).toFixed(1)} MB; a part of a rack may hold ${MAX_BYTES / 1e6} MB.`,
    );
  return { partId: body.id, body, bytes };
}

/** Throws the same Problem for a rack that is not there and for one of others. */
async function rackOf(em: EntityManager, { id: account }: Pick<Account, 'id'>, id: string): Promise<Rack> {
  const rack = await em.findOne(Rack, id);
  if (!rack) throw notFound();
  if (rack.account.id === account) return rack;
  if (!rack.project) throw notFound();
  await projectOf(em, { id: account, name: '' }, rack.project.id);
  return rack;
}
