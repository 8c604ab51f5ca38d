import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { ensureBuilt } from './build.mjs';
import { ROOT, runScript } from './project.mjs';

// Writes the published JSON Schema of the open file from the schema the code checks with.
await runScript(async () => {
  ensureBuilt(['programs']);
  const { projectJsonSchema } = await import('../packages/server/dist/index.js');
  writeFileSync(
    path.join(ROOT, 'docs/project.schema.json'),
    `${JSON.stringify(projectJsonSchema(), null, 2)}\n`,
  );
});
