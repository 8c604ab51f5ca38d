import { FIGURES } from './figures.ts';
import type { Figure } from './measure.ts';

export { battle } from './battle.ts';
export { largeMind, largeProject, NIGHT_WATCH } from './orchards.ts';
export { rounded } from './measure.ts';

/** Some are measured together, as one run shows them all. */
export type Measure = () => Figure | Promise<Figure | Figure[]>;

function lineOf({ figure, value, unit, goal, detail }: Figure): string {
  const details = Object.entries(detail).map(([key, each]) => `${key} ${each}`);
  const missed = meets(value, goal) ? '' : 'missed ';
  return `${figure.padEnd(14)} ${String(value).padStart(8)}  ${missed}${goal ?? ''}  (${unit}; ${details.join(', ')})`;
}

/** Figures that are measured together. */
export interface Group {
  figures: readonly string[];
  measure: Measure;
}

export const USAGE = `npm run -s bench -- [--only FIGURE] [--json] [--strict] [--against COMMIT [--rounds N]]
  --only FIGURE      one figure, by its name
  --json             one line of JSON a figure
  --strict           ends with 1 where a figure misses its goal
  --against COMMIT   builds that commit beside this one, measures both in turns, and prints the ratios
  --rounds N         how often each is measured; left out: 5`;

export interface Flags {
  only?: string;
  json: boolean;
  strict: boolean;
  help: boolean;
  against?: string;
  rounds?: number;
}

/** The flags of the command line, or what is wrong with them. */
export function readFlags(given: readonly string[]): Flags | { wrong: string } {
  const flags: Flags = { json: false, strict: false, help: false };
  for (let i = 0; i < given.length; i++) {
    const flag = given[i];
    if (flag === '--json' || flag === '--strict' || flag === '--help') {
      flags[flag.slice(2) as 'json' | 'strict' | 'help'] = true;
      continue;
    }
    if (flag !== '--only' && flag !== '--against' && flag !== '--rounds')
      return { wrong: `There is no flag “${flag}”.` };
    const value = given[++i];
    if (value === undefined || value === '' || value.startsWith('--'))
      return { wrong: `“${flag}” needs a value.` };
    if (flag === '--only') flags.only = value;
    else if (flag === '--against') flags.against = value;
    else {
      flags.rounds = Number(value);
      if (!Number.isInteger(flags.rounds) || flags.rounds < 1)
        return { wrong: '“--rounds” takes a whole number from 1 on.' };
    }
  }
  return flags;
}

/** The groups to be measured: all, or the one that the named figure is in. `more` are figures that need more than this program. */
export function groupsOf(
  more: Readonly<Record<string, Group>>,
  only?: string,
): { found: Record<string, Group> } | { wrong: string } {
  const own = Object.entries(FIGURES).map(([name, measure]): [string, Group] => [
    name,
    { figures: [name], measure },
  ]);
  const all = Object.fromEntries([...own, ...Object.entries(more)]);
  if (only === undefined) return { found: all };
  const group = Object.entries(all).find(
    ([name, { figures }]) => name === only || figures.includes(only),
  );
  if (group) return { found: Object.fromEntries([group]) };
  const names = Object.values(all).flatMap(({ figures }) => figures);
  return { wrong: `There is no figure “${only}”. There are: ${names.join(', ')}.` };
}

/** Whether a value meets a goal such as `<= 1.3`. */
export function meets(value: number, goal: string | undefined): boolean {
  const [operator, bound] = goal?.split(' ') ?? [];
  if (operator === '<=') return value <= Number(bound);
  if (operator === '>=') return value >= Number(bound);
  return true;
}

/** Measures and prints, one line a figure. With `only` a single one; with `strict` a missed goal ends with 1. */
export async function measureAll(
  groups: Readonly<Record<string, Group>>,
  { only, json, strict }: Flags,
): Promise<void> {
  for (const [name, { measure }] of Object.entries(groups)) {
    for (const figure of [await measure()].flat()) {
      if (only !== undefined && name !== only && figure.figure !== only) continue;
      process.stdout.write(`${json ? JSON.stringify(figure) : lineOf(figure)}\n`);
      if (strict && !meets(figure.value, figure.goal)) process.exitCode = 1;
    }
  }
}
