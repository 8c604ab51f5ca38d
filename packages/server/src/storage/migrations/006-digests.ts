import type { QueryInterface } from 'sequelize';
import type { RunnableMigration } from 'umzug';

/** Digests of documents are kept with the edits, so that a list of edits reads no documents. */
export const migration: RunnableMigration<QueryInterface> = {
  name: '006-digests',
  async up({ context: schema }) {
    await schema.sequelize.query(
      'alter table edits add column digest text generated always as (md5(document::text)) stored',
    );
  },
  async down({ context: schema }) {
    await schema.removeColumn('edits', 'digest');
  },
};
