import { migrated } from '@crooked-lantern/core';
import { QueryTypes, type QueryInterface } from 'sequelize';
import type { RunnableMigration } from 'umzug';

/** Edits read at a time: each may have megabytes. */
const AT_ONCE = 50;

/** Brings all edits that `where` finds to the form of today, so that any of them can be read, compared and restored. */
const toForm = (name: string, where: string): RunnableMigration<QueryInterface> => ({
  name,
  async up({ context: { sequelize } }) {
    await sequelize.transaction(async (transaction) => {
      for (;;) {
        const edits = await sequelize.query<{
          projectId: string;
          number: number;
          document: object;
        }>(
          `SELECT project_id AS "projectId", number, document FROM edits WHERE ${where} LIMIT ${AT_ONCE}`,
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
});

export const format2 = toForm('003-format-2', "document->>'version' = '1'");
/** The first edits of version 2 had another name for the limits of observations. */
export const observationLimits = toForm(
  '004-observation-limits',
  "document->'runFindings' IS NOT NULL",
);
