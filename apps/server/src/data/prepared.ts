import type { EntityManager } from '@mikro-orm/postgresql';

/** The pool. */
interface Pool {
  acquireConnection(): Promise<Asked>;
  releaseConnection(connection: Asked): Promise<void>;
}

/** Of a connection of the pool: the driver's own way to ask. */
interface Asked {
  query(of: { name: string; text: string; values: readonly unknown[] }): Promise<{ rows: unknown }>;
}

/**
 * A statement that is made so often that the database keeps it ready, by its name, on each connection: it is read and planned once.
 * Outside transactions; a connection of the entity manager's pool is held meanwhile.
 */
export async function prepared<Rows>(
  em: EntityManager,
  { name, text }: Prepared,
  values: readonly unknown[],
): Promise<Rows> {
  const pool = em.getConnection().getKnex().client as Pool;
  const connection = await pool.acquireConnection();
  try {
    return (await connection.query({ name, text, values })).rows as Rows;
  } finally {
    await pool.releaseConnection(connection);
  }
}

export interface Prepared {
  readonly name: string;
  /** With places `$1`, `$2`, … */
  readonly text: string;
}
