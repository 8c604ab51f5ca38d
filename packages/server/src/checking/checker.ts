import { fileURLToPath } from 'node:url';
import { migrated, type ProjectDocument } from '@crooked-lantern/core';
import { Piscina } from 'piscina';
import { Problem } from '../problem.ts';
import type { Verdict } from './check-text.ts';

/** Checks documents in workers, so that a large one does not hold up the others. */
export interface Checker {
  /** The document of a text; throws the Problem it is refused with. */
  read(text: string): Promise<ProjectDocument>;
  close(): Promise<void>;
}

/** A list of faults longer than this is cut. */
const MOST_FAULTS = 100;

// Workers run what was built, also where the server itself runs from its source, as in tests.
const WORKER = import.meta.url.endsWith('.ts')
  ? '../../dist/checking/check-text.js'
  : './check-text.js';

export function createChecker(): Checker {
  const pool = new Piscina<string, Verdict>({
    filename: fileURLToPath(new URL(WORKER, import.meta.url)),
    // Made when the first document comes, so that a server which ends early ends no worker that is just starting.
    minThreads: 0,
    maxThreads: 2,
    idleTimeout: 600_000,
    // Not ours: conditions under which the server itself may run from its source.
    execArgv: [],
  });
  return {
    async read(text) {
      const verdict = await pool.run(text);
      if (verdict.form === 'good')
        return migrated(JSON.parse(text.replace(/^\uFEFF/, '')) as object) as ProjectDocument;
      const { form, faults } = verdict;
      if (form === 'not-json')
        throw new Problem('malformed-request', faults[0].message, { faults });
      throw new Problem(
        'invalid-document',
        `${faults.length} fault${faults.length === 1 ? '' : 's'}; nothing was changed.`,
        { faults: faults.slice(0, MOST_FAULTS) },
      );
    },
    close: () => pool.destroy(),
  };
}
