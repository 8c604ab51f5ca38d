import { DataTypes, type QueryInterface } from 'sequelize';
import type { RunnableMigration } from 'umzug';

/** Edits may be called by a name. */
export const migration: RunnableMigration<QueryInterface> = {
  name: '002-name-edits',
  async up({ context: schema }) {
    await schema.addColumn('edits', 'name', { type: DataTypes.TEXT });
  },
  async down({ context: schema }) {
    await schema.removeColumn('edits', 'name');
  },
};
