/** What the database holds. Ids of accounts and projects are UUIDs; documents and edits are JSON, checked before they get here. */
import { Entity, ManyToOne, Opt, PrimaryKey, Property, Unique, Index } from '@mikro-orm/core';
import type { Edit, KadrelDocument, RackPart } from '@kadrel/core';

/** Somebody who may sign in. */
@Entity({ tableName: 'account' })
export class Account {
  @PrimaryKey({ type: 'uuid' })
  id!: string;

  /** Lower case. */
  @Property({ type: 'string', length: 254 })
  @Unique()
  email!: string;

  @Property({ type: 'string', length: 120 })
  name!: string;

  /** argon2id */
  @Property({ type: 'string', length: 255, hidden: true })
  passwordHash!: string;

  @Property({ type: 'timestamptz' })
  createdAt: Date & Opt = new Date();

  /** Made for a visitor of the demo, and cleared when it is not used any more. */
  @Property({ type: 'boolean' })
  guest: boolean & Opt = false;
}

/** Somebody who is signed in. */
@Entity({ tableName: 'session' })
export class Session {
  /** SHA-256 of the cookie's token, hex: who reads the table cannot sign in with it. */
  @PrimaryKey({ type: 'string', length: 64 })
  tokenHash!: string;

  @ManyToOne(() => Account, { deleteRule: 'cascade' })
  account!: Account;

  @Property({ type: 'timestamptz' })
  expiresAt!: Date;

  /** When it was last used, to the hour. */
  @Property({ type: 'timestamptz' })
  usedAt: Date & Opt = new Date();
}

/** An account that is made once its address is confirmed. */
@Entity({ tableName: 'sign_up' })
export class SignUp {
  /** SHA-256 of the token in the message, hex. */
  @PrimaryKey({ type: 'string', length: 64 })
  tokenHash!: string;

  /** Lower case. */
  @Property({ type: 'string', length: 254 })
  @Index()
  email!: string;

  @Property({ type: 'string', length: 120 })
  name!: string;

  /** argon2id */
  @Property({ type: 'string', length: 255, hidden: true })
  passwordHash!: string;

  @Property({ type: 'timestamptz' })
  expiresAt!: Date;
}

/** A project; its document follows from its edits. */
@Entity({ tableName: 'project' })
export class Project {
  @PrimaryKey({ type: 'uuid' })
  id!: string;

  @Property({ type: 'string', length: 120 })
  name!: string;

  /** How many edits there are. */
  @Property({ type: 'integer' })
  revision: number & Opt = 0;

  /** SHA-256 of the picture's bytes. */
  @Property({ type: 'string', length: 64, nullable: true })
  picture?: string | null = null;

  @Property({ type: 'boolean' })
  archived: boolean & Opt = false;

  /** It is deleted for good some time after. */
  @Property({ type: 'timestamptz', nullable: true })
  archivedAt?: Date | null = null;

  @Property({ type: 'timestamptz' })
  createdAt: Date & Opt = new Date();

  @Property({ type: 'timestamptz' })
  changedAt: Date & Opt = new Date();
}

/** Who works on which project. */
@Entity({ tableName: 'member' })
export class Member {
  @ManyToOne(() => Project, { primary: true, deleteRule: 'cascade' })
  project!: Project;

  @ManyToOne(() => Account, { primary: true, deleteRule: 'cascade' })
  account!: Account;
}

/** One edit; its revision is its place in the project's history, from 1. */
@Entity({ tableName: 'edit' })
export class EditRow {
  @ManyToOne(() => Project, { primary: true, deleteRule: 'cascade' })
  project!: Project;

  @PrimaryKey({ type: 'integer' })
  revision!: number;

  /** Made by the page; the same edit sent twice is stored once. */
  @Property({ type: 'string', length: 64 })
  @Index()
  editId!: string;

  @Property({ type: 'jsonb' })
  body!: Edit;
}

/** The whole document after so many edits. */
@Entity({ tableName: 'snapshot' })
export class Snapshot {
  @ManyToOne(() => Project, { primary: true, deleteRule: 'cascade' })
  project!: Project;

  @PrimaryKey({ type: 'integer' })
  revision!: number;

  @Property({ type: 'jsonb' })
  document!: KadrelDocument;
}

/** A picture by its hash. */
@Entity({ tableName: 'asset' })
export class Asset {
  /** SHA-256 of the bytes, hex. */
  @PrimaryKey({ type: 'string', length: 64 })
  hash!: string;

  @Property({ type: 'string', length: 60 })
  mediaType!: string;

  @Property({ type: 'blob' })
  bytes!: Buffer;

  @Property({ type: 'timestamptz' })
  storedAt: Date & Opt = new Date();
}

/** A library of parts: of one person, or of all who work on a project. */
@Entity({ tableName: 'rack' })
export class Rack {
  @PrimaryKey({ type: 'uuid' })
  id!: string;

  @Property({ type: 'string', length: 120 })
  name!: string;

  @ManyToOne(() => Account, { deleteRule: 'cascade' })
  account!: Account;

  @ManyToOne(() => Project, { deleteRule: 'cascade', nullable: true })
  project?: Project | null = null;

  @Property({ type: 'timestamptz' })
  createdAt: Date & Opt = new Date();
}

/** One version of a part on a rack. */
@Entity({ tableName: 'rack_part' })
export class RackPartRow {
  @ManyToOne(() => Rack, { primary: true, deleteRule: 'cascade' })
  rack!: Rack;

  @PrimaryKey({ type: 'string', length: 40 })
  partId!: string;

  @PrimaryKey({ type: 'integer' })
  version!: number;

  @Property({ type: 'jsonb' })
  body!: RackPart;

  /** Of the body as text, and of its picture. */
  @Property({ type: 'integer' })
  bytes!: number;

  /** SHA-256 of the picture’s bytes. */
  @Property({ type: 'string', length: 64, nullable: true })
  picture?: string | null = null;

  @Property({ type: 'timestamptz' })
  createdAt: Date & Opt = new Date();
}

/** Everything that the database holds. */
export const ENTITIES = [
  Account,
  Session,
  SignUp,
  Project,
  Member,
  EditRow,
  Snapshot,
  Asset,
  Rack,
  RackPartRow,
];
