import { FIGURES } from './figures.ts';
import type { Figure } from './measure.ts';

export { battle } from './battle.ts';
export { largeMind, largeProject, NIGHT_WATCH } from './orchards.ts';
export { rounded, type Figure } from './measure.ts';

/** Some are measured together, as one run shows them all. */
export type Measure = () => Figure | Promise<Figure | Figure[]>;

function lineOf({ figure, value, unit, goal, detail }: Figure): string {
  const details = Object.entries(detail).map(([key, each]) => `${key} ${each}`);
  return `${figure.padEnd(14)} ${String(value).padStart(8)}  ${goal ?? ''}  (${unit}; ${details.join(', ')})`;
}

/** Measures and prints, one line a figure: `--json` as JSON, `--only NAME` a single one. `more` are figures that need more than this program. */
export async function measureAll(
  flags: readonly string[],
  more: Readonly<Record<string, Measure>>,
): Promise<void> {
  const figures: Record<string, Measure> = { ...FIGURES, ...more };
  const only = flags.includes('--only') ? flags[flags.indexOf('--only') + 1] : undefined;
  if (only !== undefined && !Object.hasOwn(figures, only)) {
    process.stderr.write(
      `There is no figure “${only}”. There are: ${Object.keys(figures).join(', ')}.\n`,
    );
    process.exitCode = 1;
    return;
  }
  for (const [name, measure] of Object.entries(figures)) {
    if (only !== undefined && name !== only) continue;
    for (const figure of [await measure()].flat()) {
      const line = flags.includes('--json') ? JSON.stringify(figure) : lineOf(figure);
      process.stdout.write(`${line}\n`);
    }
  }
}
