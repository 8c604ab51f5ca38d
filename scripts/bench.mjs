import { ensureBuilt } from './build.mjs';
import { ensurePackages } from './install.mjs';
import { checkNode, quietly, Refusal, runScript, say } from './project.mjs';

await runScript(async () => {
  checkNode();
  quietly(() => {
    ensurePackages();
    ensureBuilt(['bench']);
  });
  const { groupsOf, measureAll, readFlags, USAGE } = await import('../bench/dist/main.js');
  const { measureBattle, measureDrawing } = await import('./bench-drawing.mjs');
  const { measureLedger } = await import('./bench-ledger.mjs');
  const { measureMinds } = await import('./bench-minds.mjs');
  const { measurePage } = await import('./bench-page.mjs');
  /** Figures that need the whole application, each group measured at once. */
  const more = {
    'draw.script_ms': { figures: ['draw.script_ms'], measure: measureDrawing },
    'draw.battle_ms': { figures: ['draw.battle_ms'], measure: measureBattle },
    'ledger.script_ms': { figures: ['ledger.script_ms'], measure: measureLedger },
    minds: { figures: ['edit.visible_ms', 'outline.script_ms'], measure: measureMinds },
    page: { figures: ['page.usable_ms', 'page.kb'], measure: measurePage },
  };
  const flags = readFlags(process.argv.slice(2));
  if ('wrong' in flags) throw new Refusal(`${flags.wrong}\n${USAGE}`);
  if (flags.help) return say(USAGE);
  const groups = groupsOf(more, flags.only);
  if ('wrong' in groups) throw new Refusal(groups.wrong);
  if (flags.against !== undefined) {
    const { benchAgainst } = await import('./bench-against.mjs');
    const names = flags.only === undefined ? [''] : [flags.only, Object.keys(groups.found)[0]];
    return benchAgainst(flags.against, names, flags.rounds);
  }
  await measureAll(groups.found, flags);
});
