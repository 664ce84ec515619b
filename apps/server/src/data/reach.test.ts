import { MikroORM } from '@mikro-orm/postgresql';
import { databaseConfig } from './config.ts';
import { requireDatabase, requireKnownTables } from './reach.ts';

const url = () => new URL(process.env.TEST_DATABASE_URL!);
const changed = (change: (url: URL) => void): string => {
  const made = url();
  change(made);
  return made.href;
};

test('a database that answers is enough', () =>
  expect(requireDatabase(url().href, 1)).resolves.toBeUndefined());

test.each([
  ['no address', () => 'not an address', /is no address/],
  ['another protocol', () => 'http://localhost/kadrel', /is no address/],
  [
    'a wrong password',
    () =>
      changed((one) => {
        one.password = 'wrong';
      }),
    /refuses the name or the password/,
  ],
  ['nobody there', () => 'postgres://a:b@127.0.0.1:1/kadrel', /127\.0\.0\.1:1 does not answer/],
] as [string, () => string, RegExp][])('%s is told in a sentence', async (_, of, words) => {
  await expect(requireDatabase(of(), 1)).rejects.toThrow(words);
});

test('a database that a newer Kadrel has changed is told as such', async () => {
  const orm = await MikroORM.init(databaseConfig(url().href));
  await orm.getMigrator().up();
  await expect(requireKnownTables(url().href)).resolves.toBeUndefined();
  await orm.em.execute(`insert into mikro_orm_migrations (name) values ('9999-tomorrow')`);
  await expect(requireKnownTables(url().href)).rejects.toThrow(/by a newer Kadrel \(9999-tomorrow\)/);
  await orm.em.execute(`delete from mikro_orm_migrations where name = '9999-tomorrow'`);
  await orm.close(true);
});
