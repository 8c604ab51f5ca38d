import { ensureBuilt } from './build.mjs';
import { ensurePackages } from './install.mjs';
import { checkNode, quietly, runScript } from './project.mjs';

await runScript(async () => {
  checkNode();
  quietly(() => {
    ensurePackages();
    ensureBuilt(['programs']);
  });
  await import('../packages/cli/dist/main.js');
});
