import { ensureBuilt } from './build.mjs';
import { ensurePackages } from './install.mjs';
import { checkNode, runScript } from './project.mjs';

await runScript(async () => {
  checkNode();
  // What this prints is for programs to read, so the notes of the build go elsewhere.
  const write = process.stdout.write.bind(process.stdout);
  process.stdout.write = process.stderr.write.bind(process.stderr);
  ensurePackages();
  ensureBuilt(['programs']);
  process.stdout.write = write;
  await import('../packages/cli/dist/main.js');
});
