import { DataTypes, type QueryInterface } from 'sequelize';
import type { RunnableMigration } from 'umzug';

/** Projects, and every edit ever made to them. */
export const migration: RunnableMigration<QueryInterface> = {
  name: '001-create-projects',
  async up({ context: schema }) {
    await schema.sequelize.transaction(async (transaction) => {
      await schema.createTable(
        'projects',
        {
          id: { type: DataTypes.TEXT, primaryKey: true },
          title: { type: DataTypes.TEXT, allowNull: false },
          edit: { type: DataTypes.INTEGER, allowNull: false },
          created_at: { type: DataTypes.DATE, allowNull: false },
          updated_at: { type: DataTypes.DATE, allowNull: false },
          deleted_at: { type: DataTypes.DATE },
        },
        { transaction },
      );
      await schema.createTable(
        'edits',
        {
          project_id: {
            type: DataTypes.TEXT,
            primaryKey: true,
            references: { model: 'projects', key: 'id' },
            onDelete: 'CASCADE',
          },
          number: { type: DataTypes.INTEGER, primaryKey: true },
          // JSON, not JSONB: the latter forgets the order of keys.
          document: { type: DataTypes.JSON, allowNull: false },
          created_at: { type: DataTypes.DATE, allowNull: false },
        },
        { transaction },
      );
    });
  },
  async down({ context: schema }) {
    await schema.dropTable('edits');
    await schema.dropTable('projects');
  },
};
