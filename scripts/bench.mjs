import { ensureBuilt } from './build.mjs';
import { ensurePackages } from './install.mjs';
import { checkNode, quietly, runScript } from './project.mjs';

await runScript(async () => {
  checkNode();
  quietly(() => {
    ensurePackages();
    ensureBuilt(['bench']);
  });
  const { measureAll } = await import('../bench/dist/main.js');
  const { measureBattle, measureDrawing } = await import('./bench-drawing.mjs');
  const { measureLedger } = await import('./bench-ledger.mjs');
  const { measureMinds } = await import('./bench-minds.mjs');
  const { measurePage } = await import('./bench-page.mjs');
  await measureAll(process.argv.slice(2), {
    'draw.script_ms': measureDrawing,
    'draw.battle_ms': measureBattle,
    'ledger.script_ms': measureLedger,
    minds: measureMinds,
    page: measurePage,
  });
});
