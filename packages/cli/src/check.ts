import { hasErrors, type Finding } from '@crooked-lantern/core';
import { print, tell } from './output.ts';
import { findingsOf, findingText } from './read-file.ts';

/** Findings as text go to standard error, as in all commands; with `json` they are what was asked for. */
export async function check(files: readonly string[], json: boolean): Promise<number> {
  const all: Finding[] = [];
  for (const file of files) {
    const findings = findingsOf(file);
    all.push(...findings);
    const isOne = files.length === 1;
    if (json)
      for (const finding of findings)
        await print(
          `${JSON.stringify({ type: 'finding', ...(isOne ? {} : { file }), ...finding })}\n`,
        );
    else for (const finding of findings) tell(`${isOne ? '' : `${file}: `}${findingText(finding)}`);
  }
  if (!json) {
    const errors = all.filter(({ severity }) => severity === 'error').length;
    await print(`${errors} errors, ${all.length - errors} warnings\n`);
  }
  return hasErrors(all) ? 1 : 0;
}
