/** The tables, step by step. A step that has been used is never edited; a change is a new step at the end. */
import { Migration } from '@mikro-orm/migrations';

class FirstTables extends Migration {
  override up(): void {
    this
      .addSql(`create table account (id uuid primary key, email varchar(254) not null unique, name varchar(120) not null,
      password_hash varchar(255) not null, created_at timestamptz not null)`);
    this
      .addSql(`create table session (token_hash varchar(64) primary key, account_id uuid not null references account on delete cascade,
      expires_at timestamptz not null)`);
    this.addSql(`create index session_account on session (account_id)`);
    this
      .addSql(`create table project (id uuid primary key, name varchar(120) not null, revision integer not null, picture varchar(64),
      archived boolean not null, created_at timestamptz not null, changed_at timestamptz not null)`);
    this.addSql(`create table member (project_id uuid not null references project on delete cascade,
      account_id uuid not null references account on delete cascade, primary key (project_id, account_id))`);
    this.addSql(`create index member_account on member (account_id)`);
    this
      .addSql(`create table edit (project_id uuid not null references project on delete cascade, revision integer not null,
      edit_id varchar(64) not null, body jsonb not null, primary key (project_id, revision), unique (project_id, edit_id))`);
    this
      .addSql(`create table snapshot (project_id uuid not null references project on delete cascade, revision integer not null,
      document jsonb not null, primary key (project_id, revision))`);
    this.addSql(
      `create table asset (hash varchar(64) primary key, media_type varchar(60) not null, bytes bytea not null)`,
    );
  }

  override down(): void {
    this.addSql('drop table asset, snapshot, edit, member, project, session, account');
  }
}

/** Visitors of the demo have accounts of their own. */
class Guests extends Migration {
  override up(): void {
    this.addSql(`alter table account add column guest boolean not null default false`);
    this.addSql(`alter table session add column used_at timestamptz not null default now()`);
    this.addSql(`create index account_guest on account (guest) where guest`);
  }

  override down(): void {
    this.addSql('alter table account drop column guest');
    this.addSql('alter table session drop column used_at');
  }
}

/** What is needed to keep within bounds: how much a project holds, since when it is archived, when a picture was stored. */
class Bounds extends Migration {
  override up(): void {
    this.addSql(
      `alter table project add column bytes bigint not null default 0, add column archived_at timestamptz`,
    );
    this.addSql(`update project p set
      bytes = (select coalesce(sum(length(body::text)), 0) from edit where project_id = p.id),
      archived_at = case when archived then now() end`);
    this.addSql(`alter table asset add column stored_at timestamptz not null default now()`);
    this.addSql(`create index project_picture on project (picture) where picture is not null`);
    this.addSql(
      `create table rate_limit (key varchar(255) primary key, points integer not null default 0, expire bigint)`,
    );
    // Written by whoever asks whether a save would go through.
    this.addSql(`create table heartbeat (at timestamptz not null)`);
    this.addSql(`insert into heartbeat values (now())`);
    // Undos and redos, by the statement that they are about.
    this.addSql(
      `create index edit_of on edit (project_id, (body->>'of'), revision) where (body->>'of') is not null`,
    );
  }

  override down(): void {
    this.addSql('drop index edit_of, project_picture');
    this.addSql('drop table rate_limit, heartbeat');
    this.addSql('alter table asset drop column stored_at');
    this.addSql('alter table project drop column bytes, drop column archived_at');
  }
}

/** Accounts whose address is not confirmed yet. */
class SignUps extends Migration {
  override up(): void {
    this.addSql(`create table sign_up (token_hash varchar(64) primary key, email varchar(254) not null,
      name varchar(120) not null, password_hash varchar(255) not null, expires_at timestamptz not null)`);
    this.addSql(`create index sign_up_email_index on sign_up (email)`);
  }

  override down(): void {
    this.addSql('drop table sign_up');
  }
}

/** Libraries of parts, each part in all its versions. */
class Racks extends Migration {
  override up(): void {
    this.addSql(`create table rack (id uuid primary key, name varchar(120) not null,
      account_id uuid not null references account on delete cascade,
      project_id uuid references project on delete cascade, created_at timestamptz not null)`);
    this.addSql(`create index rack_account on rack (account_id)`);
    this.addSql(`create index rack_project on rack (project_id) where project_id is not null`);
    this.addSql(`create table rack_part (rack_id uuid not null references rack on delete cascade,
      part_id varchar(40) not null, version integer not null, body jsonb not null, bytes integer not null,
      created_at timestamptz not null, primary key (rack_id, part_id, version))`);
  }

  override down(): void {
    this.addSql('drop table rack_part, rack');
  }
}

/** Pictures of what is on racks. */
class RackPictures extends Migration {
  override up(): void {
    this.addSql('alter table rack_part add column picture varchar(64)');
    this.addSql('create index rack_part_picture on rack_part (picture) where picture is not null');
  }

  override down(): void {
    this.addSql('alter table rack_part drop column picture');
  }
}

/** All steps, in order. */
export const MIGRATIONS = [
  { name: '0001-first-tables', class: FirstTables },
  { name: '0002-guests', class: Guests },
  { name: '0003-bounds', class: Bounds },
  { name: '0004-sign-ups', class: SignUps },
  { name: '0005-racks', class: Racks },
  { name: '0006-rack-pictures', class: RackPictures },
];
