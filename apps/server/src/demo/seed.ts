/** Puts the demo projects into the demo account. */
import { createHash } from 'node:crypto';
import { EntityManager } from '@mikro-orm/postgresql';
import { Injectable } from '@nestjs/common';
import { AccountsService } from '../accounts/accounts.service.ts';
import { Asset, Member } from '../data/entities.ts';
import { storeProject } from '../projects/storing.ts';
import { DEMOS, playLedger } from './ledgers.ts';
import pictures from './pictures.json' with { type: 'json' };

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
