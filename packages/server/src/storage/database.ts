import { Sequelize } from 'sequelize';
import { SequelizeStorage, Umzug } from 'umzug';
import { migration as createProjects } from './migrations/001-create-projects.ts';
import { defineModels, type Models } from './models.ts';

export interface Database {
  sequelize: Sequelize;
  models: Models;
  close(): Promise<void>;
}

const MIGRATIONS = [createProjects];

/** Opens the database at `url` (postgres://…) and brings its tables up to date. */
export async function openDatabase(url: string): Promise<Database> {
  const sequelize = new Sequelize(url, {
    dialect: 'postgres',
    logging: false,
    pool: { max: 8, acquire: 5000, idle: 10_000 },
    retry: { max: 1 },
  });
  const models = defineModels(sequelize);
  const umzug = new Umzug({
    migrations: MIGRATIONS,
    context: sequelize.getQueryInterface(),
    storage: new SequelizeStorage({ sequelize }),
    logger: undefined,
  });
  await umzug.up();
  return { sequelize, models, close: () => sequelize.close() };
}
