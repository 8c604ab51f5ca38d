import { withSetup, type ProjectDocument } from '@crooked-lantern/core';

/** How a run is to begin, where it is not as the file says; all by name or title. */
export interface Beginning {
  tier?: string;
  setup?: string;
  player?: string;
}

interface Choice {
  name: string;
  title: string;
}

/** The one that goes by this name, or else by this title, in capitals or not. */
export function findNamed<T extends Choice>(choices: readonly T[], asked: string): T | undefined {
  return (
    choices.find(({ name }) => name === asked) ??
    choices.find(({ title }) => title.toLowerCase() === asked.toLowerCase())
  );
}

/** The name of what is asked for, or what there is. */
function nameOf(
  what: string,
  choices: readonly Choice[],
  asked: string,
): { name: string } | { trouble: string } {
  const found = findNamed(choices, asked);
  if (found) return found;
  const there = choices.map(({ title }) => `“${title}”`).join(', ');
  return {
    trouble: `The file has no ${what} “${asked}”. ${there === '' ? 'It has none.' : `There are: ${there}.`}`,
  };
}

function choicesOf(parts: Record<string, { title?: string }> = {}): Choice[] {
  return Object.entries(parts).map(([name, { title }]) => ({ name, title: title ?? name }));
}

/** The project with another beginning, or which part of that it lacks. */
export function beginAs(
  document: ProjectDocument,
  { tier, setup, player }: Beginning,
): { document: ProjectDocument } | { trouble: string } {
  let begun = document;
  if (setup !== undefined) {
    const found = nameOf('set-up', choicesOf(document.setups), setup);
    if ('trouble' in found) return found;
    begun = withSetup(begun, found.name);
  }
  if (tier !== undefined) {
    const tiers = (document.tiers ?? []).map(({ name, title }) => ({ name, title: title ?? name }));
    const found = nameOf('tier', tiers, tier);
    if ('trouble' in found) return found;
    begun = { ...begun, start: { ...begun.start, tier: found.name } };
  }
  if (player !== undefined) {
    const found = nameOf('scripted player', choicesOf(document.players), player);
    if ('trouble' in found) return found;
    begun = { ...begun, start: { ...begun.start, player: found.name } };
  }
  return { document: begun };
}
