import { readProjectText } from '@crooked-lantern/core';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { freshDatabase } from '../testing/database.fixture.ts';
import { openDatabase, type Database } from './database.ts';
import { loadDemos } from './load-demos.ts';
import { createProjectStore, slug } from './projects.ts';

let fresh: Awaited<ReturnType<typeof freshDatabase>>;
let database: Database;

beforeAll(async () => {
  fresh = await freshDatabase();
  database = await openDatabase(fresh.url);
});
afterAll(async () => {
  await database.close();
  await fresh.drop();
});

describe('addresses made from titles', () => {
  it.each([
    ['Night Watch', 'night-watch'],
    ['  Keeper’s Duel!  ', 'keepers-duel'],
    ['Über die Mauer', 'uber-die-mauer'],
    ['☾', 'project'],
    ['x'.repeat(90), 'x'.repeat(60)],
  ])('“%s” gives %s', (title, id) => {
    expect(slug(title)).toBe(id);
  });
});

describe('the tables', () => {
  it('are made once: opening again finds them and keeps what is in them', async () => {
    await database.models.Project.create({ id: 'kept', title: 'Kept', edit: 1 } as never);
    const again = await openDatabase(fresh.url);
    expect(await again.models.Project.count()).toBe(1);
    await again.close();
    await database.models.Project.destroy({ where: {}, force: true });
  });

  it('hold every edit number of a project once', async () => {
    await database.models.Project.create({ id: 'twice', title: 'Twice', edit: 1 } as never);
    const edit = { projectId: 'twice', number: 1, document: {} };
    await database.models.Edit.create(edit as never);
    await expect(database.models.Edit.create(edit as never)).rejects.toThrow();
    await database.models.Project.destroy({ where: {}, force: true });
    expect(await database.models.Edit.count(), 'edits go with their project').toBe(0);
  });

  it('can’t be reached at a wrong address, and say so', async () => {
    const url = new URL(fresh.url);
    url.pathname = '/nowhere';
    await expect(openDatabase(url.href)).rejects.toThrow(/nowhere/);
  });
});

describe('edits of version 1 of the format', () => {
  const OLD = path.resolve(
    import.meta.dirname,
    '../../../core/src/testing/version-1/night-watch.lantern.json',
  );

  it('are of version 2 once the database was opened, all of them, with the names people gave', async () => {
    const text = readFileSync(OLD, 'utf8');
    const other = await freshDatabase();
    const before = await openDatabase(other.url);
    await before.models.Project.create({ id: 'old', title: 'Old', edit: 60 } as never);
    await before.models.Edit.bulkCreate(
      Array.from({ length: 60 }, (_, i) => ({
        projectId: 'old',
        number: i + 1,
        document: JSON.parse(text),
        name: i === 3 ? 'Fourth' : null,
      })) as never,
    );
    await before.sequelize.query(`DELETE FROM "SequelizeMeta" WHERE name = '003-format-2'`);
    await before.close();
    const after = await openDatabase(other.url);
    const edits = await after.models.Edit.findAll({ order: ['number'] });
    const now = readProjectText(text);
    expect(edits).toHaveLength(60);
    for (const { document } of edits)
      expect(JSON.stringify(document)).toBe(now.ok && JSON.stringify(now.document));
    expect(edits[3].name).toBe('Fourth');
    await after.close();
    await other.drop();
  });
});

it('edits of the first files of version 2 have today’s name for the limits of observations', async () => {
  const other = await freshDatabase();
  const before = await openDatabase(other.url);
  const document = { format: 'crooked-lantern/project', version: 2, title: 'Old' };
  await before.models.Project.create({ id: 'old', title: 'Old', edit: 1 } as never);
  const edit = { projectId: 'old', number: 1, document: { ...document, runFindings: { ties: 5 } } };
  await before.models.Edit.create(edit as never);
  await before.sequelize.query(`DELETE FROM "SequelizeMeta" WHERE name = '004-observation-limits'`);
  await before.close();
  const after = await openDatabase(other.url);
  const kept = await after.models.Edit.findOne({ where: { projectId: 'old' } });
  expect(kept?.document).toEqual({ ...document, observationLimits: { ties: 5 } });
  await after.close();
  await other.drop();
});

describe('a database that can’t be used', () => {
  const spoiled = async (sql: string) => {
    const own = await freshDatabase();
    const first = await openDatabase(own.url);
    await first.sequelize.query(sql);
    await first.close();
    const words = await openDatabase(own.url).then(
      async (opened) => {
        await opened.close();
        return 'opened';
      },
      (error: Error) => `${error.name}: ${error.message}`,
    );
    await own.drop();
    return words;
  };

  it.each([
    ['a table is missing', 'drop table edits', /relation "edits" does not exist\. Put the data/],
    [
      'a column is missing',
      'alter table edits drop column document cascade',
      /document" does not exist/,
    ],
    [
      'a later version wrote it',
      `insert into "SequelizeMeta" (name) values ('099-later')`,
      /written by a later version of Crooked Lantern \(it knows “099-later”\)/,
    ],
  ])('says so in words: %s', async (_, sql, words) => {
    const message = await spoiled(sql);
    expect(message).toMatch(/^UnusableDatabase: /);
    expect(message).toMatch(words);
  });
});

describe('demos', () => {
  it('with a fault are named, with the place of the fault', async () => {
    const folder = mkdtempSync(path.join(os.tmpdir(), 'orchard-'));
    writeFileSync(
      path.join(folder, 'broken.lantern.json'),
      '{"format": "crooked-lantern/project", "version": 1}',
    );
    await expect(loadDemos(createProjectStore(database), folder)).rejects.toThrow(
      /broken\.lantern\.json can’t be loaded: \w+/,
    );
    rmSync(folder, { recursive: true, force: true });
  });
});
