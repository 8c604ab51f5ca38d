import { migrated } from '@crooked-lantern/core';
import { QueryTypes, type QueryInterface } from 'sequelize';
import type { RunnableMigration } from 'umzug';

/** Edits read at a time: each may have megabytes. */
const AT_ONCE = 50;

/** All edits are of version 2 of the format, so that any of them can be read, compared and restored. */
export const migration: RunnableMigration<QueryInterface> = {
  name: '003-format-2',
  async up({ context: { sequelize } }) {
    await sequelize.transaction(async (transaction) => {
      for (;;) {
        const edits = await sequelize.query<{
          projectId: string;
          number: number;
          document: object;
        }>(
          `SELECT project_id AS "projectId", number, document FROM edits WHERE document->>'version' = '1' LIMIT ${AT_ONCE}`,
          { type: QueryTypes.SELECT, transaction },
        );
        if (edits.length === 0) return;
        for (const { projectId, number, document } of edits)
          await sequelize.query(
            'UPDATE edits SET document = :document WHERE project_id = :projectId AND number = :number',
            {
              replacements: { projectId, number, document: JSON.stringify(migrated(document)) },
              transaction,
            },
          );
      }
    });
  },
  // Edits of version 2 stay so: what version 1 had for them, it can read no longer.
  down: () => Promise.resolve(),
};
