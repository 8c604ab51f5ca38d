import { randomBytes } from 'node:crypto';
import pg from 'pg';

/** A fresh database in the tests' own cluster, whose address the test command gives; call `drop` at the end. */
export async function freshDatabase(): Promise<{ url: string; drop: () => Promise<void> }> {
  const cluster = process.env.LANTERN_TEST_DATABASE;
  if (!cluster) throw new Error('Set LANTERN_TEST_DATABASE, or run the tests with npm test.');
  const name = `test_${randomBytes(6).toString('hex')}`;
  const admin = async (sql: string) => {
    const client = new pg.Client({ connectionString: cluster });
    await client.connect();
    await client.query(sql);
    await client.end();
  };
  await admin(`create database ${name}`);
  const url = new URL(cluster);
  url.pathname = `/${name}`;
  return { url: url.href, drop: () => admin(`drop database if exists ${name} with (force)`) };
}
