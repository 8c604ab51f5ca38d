import { FIGURES } from './figures.ts';

const flags = process.argv.slice(2);
const json = flags.includes('--json');
const only = flags.includes('--only') ? flags[flags.indexOf('--only') + 1] : undefined;

if (only !== undefined && !(only in FIGURES)) {
  process.stderr.write(
    `There is no figure “${only}”. There are: ${Object.keys(FIGURES).join(', ')}.\n`,
  );
  process.exit(1);
}
for (const [name, measure] of Object.entries(FIGURES)) {
  if (only !== undefined && name !== only) continue;
  const figure = measure();
  if (json) process.stdout.write(`${JSON.stringify(figure)}\n`);
  else {
    const detail = Object.entries(figure.detail).map(([key, value]) => `${key} ${value}`);
    process.stdout.write(
      `${figure.figure.padEnd(14)} ${String(figure.value).padStart(8)}  ${figure.goal ?? ''}  (${figure.unit}; ${detail.join(', ')})\n`,
    );
  }
}
