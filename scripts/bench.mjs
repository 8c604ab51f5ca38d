import { ensureBuilt } from './build.mjs';
import { ensurePackages } from './install.mjs';
import { checkNode, quietly, runScript } from './project.mjs';

await runScript(async () => {
  checkNode();
  quietly(() => {
    ensurePackages();
    ensureBuilt(['bench']);
  });
  await import('../bench/dist/main.js');
});
