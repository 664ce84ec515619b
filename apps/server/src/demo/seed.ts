/** Puts the demo projects into the demo account: their ledgers run through the same verbs as a user's statements. */
import { createHash } from 'node:crypto';
import { EntityManager } from '@mikro-orm/postgresql';
import { Injectable } from '@nestjs/common';
import {
  editOf,
  emptyDocument,
  isRefusal,
  perform,
  plainWorld,
  verbNamed,
  type Edit,
  type KadrelDocument,
  type LengthUnit,
  type Typed,
} from '@kadrel/core';
import { AccountsService } from '../accounts/accounts.service.ts';
import { Asset, Member } from '../data/entities.ts';
import { storeProject } from '../projects/storing.ts';
import faults from './faults.json' with { type: 'json' };
import marbleRun from './marble-run.json' with { type: 'json' };
import orchardHive from './orchard-hive.json' with { type: 'json' };
import pictures from './pictures.json' with { type: 'json' };
import tramShelter from './tram-shelter.json' with { type: 'json' };

interface DemoLedger {
  readonly name: string;
  readonly units: { readonly length: string };
  readonly variables?: Readonly<Record<string, string>>;
  readonly ledger: readonly (Typed & { readonly verb: string })[];
}

/** The same hive, and what somebody did to it. */
const hiveWithFaults: DemoLedger = {
  ...orchardHive,
  name: faults.name,
  ledger: [...orchardHive.ledger, ...faults.ledger],
};

const DEMOS: readonly DemoLedger[] = [hiveWithFaults, orchardHive, tramShelter, marbleRun];

/** Of PostgreSQL’s advisory locks: servers that start at once seed one after another. */
const SEED_LOCK = 4_180_001;

@Injectable()
export class DemoSeed {
  constructor(
    private readonly em: EntityManager,
    private readonly accounts: AccountsService,
  ) {}

  /** Adds the demo projects that are not there yet, by name, all or none; never touches one that is. */
  async run(): Promise<void> {
    const account = await this.accounts.demoAccount();
    await this.em.fork().transactional(async (em) => {
      await em.execute('select pg_advisory_xact_lock(?)', [SEED_LOCK]);
      const members = await em.find(Member, { account: account.id }, { populate: ['project'] });
      const there = new Set(members.map(({ project }) => project.name));
      for (const demo of DEMOS)
        if (!there.has(demo.name)) {
          const picture = await storePicture(em, demo.name);
          await storeProject(em, account, { name: demo.name, picture, ...playLedger(demo) });
        }
    });
  }
}

/** The picture on a demo's card, as the workshop has drawn it; `scripts/pictures.mjs` takes them. Returns its hash. */
async function storePicture(em: EntityManager, name: string): Promise<string | null> {
  const encoded = (pictures as Readonly<Record<string, string>>)[name];
  if (encoded === undefined) return null;
  const bytes = Buffer.from(encoded, 'base64');
  const hash = createHash('sha256').update(bytes).digest('hex');
  await em.upsert(Asset, { hash, mediaType: 'image/png', bytes, storedAt: new Date() });
  return hash;
}

/** The edits that a person would have made. Demo ledgers give points by number, and corners go by boxes, so that no kernel is needed here. */
export function playLedger({ name, units, variables, ledger }: DemoLedger): {
  start: KadrelDocument;
  edits: Edit[];
} {
  const start: KadrelDocument = {
    ...emptyDocument({ units: units.length as LengthUnit, grid: 5 }),
    variables: { ...variables },
  };
  let document = start;
  let ids = 0;
  const edits = ledger.map(({ verb: id, note: _, ...values }, i): Edit => {
    const verb = verbNamed(id);
    if (!verb) throw new Error(`${name}, statement ${i + 1}: there is no verb ${id}.`);
    const done = perform(
      verb,
      values,
      document,
      plainWorld(document, () => `p${++ids}`),
    );
    if (isRefusal(done))
      throw new Error(`${name}, statement ${i + 1} (${id}), ${done.blank}: ${done.message}`);
    document = done.document;
    return editOf(done, {
      id: `demo-${String(i + 1).padStart(4, '0')}`,
      verb: id,
      values,
      author: 'Demo',
      time: Date.UTC(2026, 0, 5, 9, i),
    });
  });
  return { start, edits };
}
