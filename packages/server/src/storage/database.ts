import { Sequelize } from 'sequelize';
import { SequelizeStorage, Umzug } from 'umzug';
import { migration as createProjects } from './migrations/001-create-projects.ts';
import { migration as nameEdits } from './migrations/002-name-edits.ts';
import { format2, observationLimits } from './migrations/003-format-2.ts';
import { migration as whatEditsAre } from './migrations/005-what-edits-are.ts';
import { migration as digests } from './migrations/006-digests.ts';
import { defineModels, type Models } from './models.ts';

export interface Database {
  sequelize: Sequelize;
  models: Models;
  close(): Promise<void>;
}

const MIGRATIONS = [createProjects, nameEdits, format2, observationLimits, whatEditsAre, digests];

/** The database can't be used as it is; the message says why and what to do, in one sentence or two. */
export class UnusableDatabase extends Error {
  override name = 'UnusableDatabase';
}

/** Milliseconds after which a statement is cancelled. Our statements take less than a tenth of it. */
const STATEMENT_LIMIT = 10_000;

export interface DatabaseOptions {
  /** Milliseconds after which a statement is ended. */
  statementLimit?: number;
}

/**
 * Opens the database at `url` (postgres://…) and brings its tables up to date. Throws
 * {@link UnusableDatabase} where it can't be reached, is damaged, or was written by a later version.
 */
export async function openDatabase(
  url: string,
  { statementLimit = STATEMENT_LIMIT }: DatabaseOptions = {},
): Promise<Database> {
  const sequelize = new Sequelize(url, {
    dialect: 'postgres',
    logging: false,
    pool: { max: 8, acquire: 5000, idle: 10_000 },
    retry: { max: 1 },
    dialectOptions: {
      statement_timeout: statementLimit,
      idle_in_transaction_session_timeout: 2 * statementLimit,
      // Where not even a refusal comes back, because the line is dead.
      query_timeout: 2 * statementLimit,
    },
  });
  const models = defineModels(sequelize);
  try {
    await bringUpToDate(sequelize);
    await checkTables(models);
  } catch (error) {
    await sequelize.close();
    if (error instanceof UnusableDatabase) throw error;
    const { message } = error as Error;
    throw new UnusableDatabase(
      `The database can’t be used: ${message}. Put the data folder back from a copy, or choose another with LANTERN_DATA.`,
      { cause: error },
    );
  }
  return { sequelize, models, close: () => sequelize.close() };
}

async function bringUpToDate(sequelize: Sequelize): Promise<void> {
  const storage = new SequelizeStorage({ sequelize });
  const umzug = new Umzug({
    migrations: MIGRATIONS,
    context: sequelize.getQueryInterface(),
    storage,
    logger: undefined,
  });
  await umzug.up();
  const later = (await storage.executed()).filter(
    (name) => !MIGRATIONS.some((migration) => migration.name === name),
  );
  if (later.length === 0) return;
  throw new UnusableDatabase(
    `The data were written by a later version of Crooked Lantern (it knows “${later.join('”, “')}”). Use that version, or choose another folder with LANTERN_DATA.`,
  );
}

/** Reads one row of each table, which fails where a table or a column is missing or damaged. */
async function checkTables({ Project, Edit }: Models): Promise<void> {
  await Project.findOne({ paranoid: false });
  await Edit.findOne();
}
