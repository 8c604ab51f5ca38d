import { DataTypes, type QueryInterface } from 'sequelize';
import type { RunnableMigration } from 'umzug';

/** Edits say what they changed. */
export const migration: RunnableMigration<QueryInterface> = {
  name: '005-what-edits-are',
  async up({ context: schema }) {
    await schema.addColumn('edits', 'what', { type: DataTypes.TEXT });
  },
  async down({ context: schema }) {
    await schema.removeColumn('edits', 'what');
  },
};
